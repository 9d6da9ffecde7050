import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, type Place, type Scene } from "../api/client";
import { FileButton } from "../ui/FileButton";
import { Alert, Heading } from "../ui/parts";

/** The seller's own photographs: started, continued, imported as packs, and restored. */
export function OwnScenes({ place }: { place: Place }) {
  const go = useNavigate();
  const queries = useQueryClient();
  const [problem, setProblem] = useState<string | null>(null);
  const all = useQuery({ queryKey: ["own-scenes"], queryFn: api.ownScenes });
  const begun = (all.data ?? []).filter((line) => line.template === place.template && !line.pack);
  async function tried(work: () => Promise<unknown>) {
    try {
      await work();
      setProblem(null);
    } catch (error) {
      setProblem((error as Error).message);
    }
  }
  const begin = (file: File) =>
    tried(async () => {
      const photo = await api.addPhoto(file);
      const scene = await api.beginScene(photo.id, place.template, place.panel ?? null);
      queries.invalidateQueries({ queryKey: ["own-scenes"] });
      go(`/photograph/${scene.id}/${place.art}`);
    });
  const takeIn = (file: File) =>
    tried(async () => {
      await api.importScene(file);
      await queries.invalidateQueries({ queryKey: ["pair"] });
      await queries.invalidateQueries({ queryKey: ["own-scenes"] });
    });
  return (
    <div className="relative grid content-start gap-2 p-1.5 text-sm">
      <Heading>Your own photographs</Heading>
      <p className="text-soft">Photograph the plain blank, mark where the print lies, and every design goes on it.</p>
      <FileButton name="Photograph of the plain blank" accept="image/*" onFiles={([file]) => file && begin(file)}>
        Mark a photograph
      </FileButton>
      <FileButton name="Scene pack" accept=".zip" onFiles={([file]) => file && takeIn(file)}>
        Import a scene pack
      </FileButton>
      {begun.map((line) => (
        <Link key={line.id} to={`/photograph/${line.id}/${place.art}`} className="truncate underline">
          Resume marking: {line.title}
        </Link>
      ))}
      {problem && <Alert>{problem}</Alert>}
    </div>
  );
}

/** Actions on one of the seller's own scenes. */
export function OwnSceneTools({ place, scene }: { place: Place; scene: Scene }) {
  const queries = useQueryClient();
  const all = useQuery({ queryKey: ["own-scenes"], queryFn: api.ownScenes });
  const line = all.data?.find((own) => own.pack === scene.id);
  const remove = useMutation({
    mutationFn: (id: number) => api.removeScene(id),
    onSuccess: () => {
      for (const key of [["own-scenes"], ["pair"], ["showing"]]) queries.invalidateQueries({ queryKey: key });
    },
  });
  if (!line) return null;
  return (
    <div className="flex gap-3 text-xs text-soft">
      {line.photo && (
        <Link to={`/photograph/${line.id}/${place.art}`} className="underline hover:text-ink">
          Marks
        </Link>
      )}
      <a href={api.scenePack(line.id)} download className="underline hover:text-ink">
        As a file
      </a>
      <button type="button" className="underline hover:text-ink" onClick={() => remove.mutate(line.id)}>
        Remove
      </button>
    </div>
  );
}
