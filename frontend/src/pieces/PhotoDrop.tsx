import { useState } from "react";
import { useDropzone } from "react-dropzone";
import { type Art, api } from "../api/client";
import { FileButton } from "../ui/FileButton";
import { Alert } from "../ui/parts";

/** Photographs, chosen or dropped. They are stored beside the board and fill empty frames in order. */
export function PhotoDrop(props: { onPhotos: (photos: Art[]) => void; onBoard?: () => void }) {
  const [state, setState] = useState<{ reading?: number; problem?: string }>({});
  async function take(files: File[]) {
    const photos: Art[] = [];
    let problem: string | undefined;
    setState({ reading: files.length });
    for (const file of files) {
      try {
        photos.push(await api.addPhoto(file));
      } catch (error) {
        problem = `${file.name}: ${(error as Error).message}`;
      }
    }
    setState({ problem });
    if (photos.length) props.onPhotos(photos);
  }
  const { getRootProps, isDragActive } = useDropzone({ onDrop: take, noClick: true, noKeyboard: true });
  return (
    <div
      {...getRootProps({
        className: `grid gap-1 border p-2 ${isDragActive ? "border-ink bg-accent-tint" : "border-rule"}`,
      })}
    >
      <FileButton name="Photographs" accept=".png,.jpg,.jpeg,.tif,.tiff,.webp" multiple onFiles={take}>
        Choose photographs
      </FileButton>
      <p className="text-xs text-soft">
        Or drop them here: they fill the empty frames in their order.{" "}
        {props.onBoard && (
          <button type="button" className="underline" onClick={props.onBoard}>
            Fill them from the board
          </button>
        )}
      </p>
      {state.reading && <p className="text-xs">Reading {state.reading} photographs…</p>}
      {state.problem && <Alert>{state.problem}</Alert>}
    </div>
  );
}
