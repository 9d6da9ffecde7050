import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import { Choice } from "../ui/Choice";
import { Below, Masthead } from "../ui/Masthead";
import { Alert, Button, Mark } from "../ui/parts";
import { UnitChoice } from "../ui/UnitChoice";
import { PhotoPane } from "./PhotoPane";
import { Colour, InFront, Print, Product } from "./PhotoParts";
import type { Tool } from "./tools";
import { type Photo, usePhoto } from "./usePhoto";

const PARTS = [
  { value: "print", label: "Print" },
  { value: "product", label: "Product" },
  { value: "front", label: "In front" },
  { value: "colour", label: "Colour" },
] as const;
type Part = (typeof PARTS)[number]["value"];
const FIRST: Record<Part, Tool> = { print: "points", product: "leave", front: "front", colour: "spot" };

/** A photograph of a plain blank being made into a scene. */
export function PhotoPage() {
  const { id, art } = useParams();
  const { photo, problem } = usePhoto(Number(id));
  if (problem)
    return (
      <main className="p-6">
        <Alert>{problem}</Alert>
      </main>
    );
  return photo ? <Marking photo={photo} art={Number(art)} /> : <p className="p-6">Opening the photograph…</p>;
}

function Marking({ photo, art }: { photo: Photo; art: number }) {
  const { scene } = photo;
  const go = useNavigate();
  const [part, setPart] = useState<Part>("print");
  const [tool, setTool] = useState<Tool>("points");
  const [reach, setReach] = useState(0.02);
  const [shown, setShown] = useState<"marks" | "design">("marks");
  const back = `/bench/${art}/${scene.template}/mockups`;
  const marking = { photo, tool, onTool: setTool, reach, onReach: setReach };
  return (
    <div className="flex h-screen flex-col">
      <Masthead where={<Below>Scene from your photograph: {scene.template_title}</Below>}>
        <UnitChoice />
        <Button onClick={() => go(back)}>Back to the bench</Button>
      </Masthead>
      <main className="grid min-h-0 grow grid-cols-[1fr_21rem]">
        <PhotoPane photo={photo} tool={tool} reach={reach} shown={shown} art={art} />
        <aside className="flex min-h-0 flex-col gap-3 overflow-y-auto border-l border-rule p-4">
          <label className="grid gap-0.5 text-sm">
            <span className="text-soft">Name of the scene</span>
            <input
              key={scene.title}
              defaultValue={scene.title}
              maxLength={80}
              className="rounded-[3px] border border-rule bg-paper px-2 py-1"
              onBlur={(event) => {
                const title = event.target.value.trim();
                if (title && title !== scene.title) photo.name(title);
              }}
            />
          </label>
          <Choice
            label="View"
            value={shown}
            onChange={setShown}
            options={[
              { value: "marks", label: "The photograph" },
              { value: "design", label: "With the design" },
            ]}
          />
          <Choice
            label="What is marked"
            value={part}
            options={[...PARTS]}
            onChange={(next) => {
              setPart(next);
              setTool(FIRST[next]);
              setShown("marks");
            }}
          />
          {part === "print" && <Print {...marking} />}
          {part === "product" && <Product {...marking} />}
          {part === "front" && <InFront {...marking} />}
          {part === "colour" && <Colour {...marking} />}
          <div className="sticky -bottom-4 -mx-4 -mb-4 mt-auto grid gap-2 border-t border-rule bg-table p-4 pt-3">
            {photo.busy && <p className="text-sm text-soft">Measuring…</p>}
            {scene.notes.map((sentence) => (
              <p key={sentence} className="flex items-start gap-2 text-sm">
                <span className="mt-0.5">
                  <Mark status="warn" />
                </span>
                {sentence}
              </p>
            ))}
            {(photo.problem ?? scene.problem) && <Alert>{photo.problem ?? scene.problem}</Alert>}
            <Button
              tone="main"
              disabled={photo.busy || photo.making || scene.problem !== null}
              onClick={() => photo.make().then(() => go(back))}
            >
              {photo.making ? "Making the scene…" : scene.pack ? "Make the scene anew" : "Make the scene"}
            </Button>
          </div>
        </aside>
      </main>
    </div>
  );
}
