import { useQuery } from "@tanstack/react-query";
import { type Art, api } from "../api/client";

/** Artworks that can be used in pieces: those on the board, and those used already. */
export function useArts(beside: Art[]): Art[] {
  const board = useQuery({ queryKey: ["board"], queryFn: api.board }).data?.artworks ?? [];
  return [...board, ...beside.filter((art) => !board.some((other) => other.id === art.id))];
}

/** A choice of one of these artworks, or none. */
export function ArtPick(props: {
  arts: Art[];
  label: string;
  value: number | null;
  none?: string;
  narrow?: boolean;
  onValue: (art: number | null) => void;
}) {
  return (
    <label className="flex items-center gap-2 text-sm">
      <span className={`${props.narrow ? "w-4" : "w-24"} shrink-0 text-soft`}>{props.label}</span>
      <select
        className="w-full min-w-0 rounded-[3px] border border-rule bg-paper px-2 py-1"
        value={props.value ?? ""}
        onChange={(event) => props.onValue(event.target.value ? Number(event.target.value) : null)}
      >
        {props.none && <option value="">{props.none}</option>}
        {props.arts.map((art) => (
          <option key={art.id} value={art.id}>
            {art.title}
          </option>
        ))}
      </select>
    </label>
  );
}
