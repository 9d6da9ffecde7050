import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type MadeFile } from "../api/client";
import type { Hand } from "../bench/usePair";
import { Downloads, fetchFile } from "../ui/Downloads";
import { MM_PER_IN, parsePlain, show } from "../ui/measure";
import { Alert, Button, Choice, Heading, Mark } from "../ui/parts";
import { useUnit } from "../ui/unit";
import { ValueField } from "../ui/ValueField";

type Format = "png" | "tif" | "pdf";

export function PrintStation({ hand }: { hand: Hand }) {
  const queries = useQueryClient();
  const { unit } = useUnit();
  const { pair, proof, panel } = hand;
  const [cutLine, setCutLine] = useState(false);
  const [format, setFormat] = useState<Format>("png");
  const [own, setDpi] = useState<number | null>(null);
  const dpi = own ?? panel.dpi;
  const [files, setFiles] = useState<MadeFile[]>([]);
  const make = useMutation({
    mutationFn: () => api.printFile(hand.place, { format, dpi, cut_line: cutLine }),
    onSuccess: (file) => {
      setFiles((now) => [file, ...now.filter((other) => other.url !== file.url)]);
      fetchFile(file);
      queries.invalidateQueries({ queryKey: ["pair", pair.artwork.id, pair.template.id] });
      queries.invalidateQueries({ queryKey: ["board"] });
    },
  });
  const px = panel.file_mm.map((mm) => Math.round((mm / MM_PER_IN) * dpi));
  const stopped = proof.checks.find((check) => check.status === "fail");

  return (
    <>
      <div>
        <Heading>Who prints it</Heading>
        <div className="grid gap-1.5 text-sm">
          {(
            [
              ["press", "I press it myself", "Mirrored, for transfer paper"],
              ["upload", "A provider prints it", "As it stands, for uploading"],
            ] as const
          ).map(([route, title, hint]) => (
            <label
              key={route}
              className={`flex items-start gap-2 border p-2 ${pair.route === route ? "border-ink bg-paper" : "border-rule"}`}
            >
              <input
                type="radio"
                name="route"
                className="mt-1 accent-accent"
                checked={pair.route === route}
                onChange={() => hand.choose({ route })}
              />
              <span>
                <b>{title}</b>
                <span className="block text-xs text-soft">{hint}</span>
              </span>
            </label>
          ))}
        </div>
      </div>
      <div className="grid gap-2">
        <Heading>The file</Heading>
        <Choice
          label="File format"
          value={format}
          onChange={setFormat}
          options={[
            { value: "png", label: "PNG" },
            { value: "tif", label: "TIFF" },
            { value: "pdf", label: "PDF" },
          ]}
        />
        <ValueField
          label="Density"
          text={String(dpi)}
          suffix="dpi"
          parse={parsePlain}
          hint="Between 36 and 1200"
          onValue={(value) => setDpi(Math.min(1200, Math.max(36, value)))}
        />
        <dl className="grid grid-cols-[auto_1fr] gap-x-3 text-sm">
          <dt className="text-soft">Size</dt>
          <dd className="text-right">
            {show(panel.file_mm[0], unit)} × {show(panel.file_mm[1], unit)} {unit}
          </dd>
          <dt className="text-soft">Pixels</dt>
          <dd className="text-right">
            {px[0]} × {px[1]}
          </dd>
          <dt className="text-soft">Colour</dt>
          <dd className="text-right">sRGB, profile inside</dd>
          <dt className="text-soft">Artwork has</dt>
          <dd className="text-right">
            {pair.artwork.vector ? "lines, any dpi" : `${Math.round(Math.min(...proof.effective_dpi))} dpi here`}
          </dd>
        </dl>
        {!pair.artwork.vector && dpi > Math.min(...proof.effective_dpi) * 1.05 && (
          <p className="text-xs text-soft">
            The file is made at {dpi} dpi; the artwork brings fewer, and more pixels add no detail.
          </p>
        )}
      </div>
      {panel.shape !== "rectangle" && (
        <label className="flex items-center gap-2 text-sm">
          <input type="checkbox" checked={cutLine} onChange={(event) => setCutLine(event.target.checked)} />
          Draw the line to cut along
        </label>
      )}
      {stopped && (
        <p className="flex items-start gap-2 border border-ink bg-paper p-2 text-sm">
          <span className="mt-0.5">
            <Mark status="fail" />
          </span>
          <span>
            <b>{stopped.title}:</b> {stopped.message}
          </span>
        </p>
      )}
      <Button tone="main" disabled={make.isPending || hand.busy || hand.empty} onClick={() => make.mutate()}>
        {make.isPending ? "Making the file…" : "Make the print file"}
      </Button>
      {make.error && <Alert onRetry={() => make.mutate()}>{make.error.message}</Alert>}
      <Downloads files={files} />
    </>
  );
}
