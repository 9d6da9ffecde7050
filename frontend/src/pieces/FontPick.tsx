import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../api/client";
import { FileButton } from "../ui/FileButton";
import { Alert } from "../ui/parts";

/** Shipped and own fonts, each shown in its own letters. */
export function FontPick({ value, onValue }: { value: string; onValue: (font: string) => void }) {
  const queries = useQueryClient();
  const fonts = useQuery({ queryKey: ["fonts"], queryFn: api.fonts });
  const [problem, setProblem] = useState<string | null>(null);
  async function add(file: File) {
    try {
      const all = await api.addFont(file);
      queries.setQueryData(["fonts"], all);
      setProblem(null);
      const added = all.at(-1);
      if (added) onValue(added.key);
    } catch (error) {
      setProblem((error as Error).message);
    }
  }
  return (
    <div>
      <p className="mb-0.5 text-sm text-soft">Font</p>
      <div role="radiogroup" aria-label="Font" className="max-h-32 overflow-y-auto border border-rule bg-paper">
        {fonts.data?.map((font) => (
          <label
            key={font.key}
            className={`flex items-center border-l-4 py-0.5 pl-1.5 has-focus-visible:outline-2 has-focus-visible:outline-accent ${
              font.key === value ? "border-ink bg-accent-tint" : "border-transparent hover:bg-table"
            }`}
          >
            <input
              type="radio"
              name="font"
              className="sr-only"
              checked={font.key === value}
              onChange={() => onValue(font.key)}
            />
            <img src={api.fontSample(font.key)} alt={font.title} loading="lazy" className="h-6" />
          </label>
        ))}
      </div>
      {problem && <Alert>{problem}</Alert>}
      <FileButton name="Font file" accept=".ttf,.otf" className="mt-1 w-full" onFiles={([file]) => file && add(file)}>
        Add a font of your own
      </FileButton>
    </div>
  );
}
