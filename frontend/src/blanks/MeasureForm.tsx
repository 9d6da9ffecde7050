import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Blank, type Measures } from "../api/client";
import { Choice } from "../ui/Choice";
import { parseLength, parsePlain, show } from "../ui/measure";
import { Alert, Button, Heading } from "../ui/parts";
import { useUnit } from "../ui/unit";
import { ValueField } from "../ui/ValueField";
import { BlankDrawing } from "./BlankDrawing";
import { BodyDrawing } from "./BodyDrawing";
import { GuideReader } from "./GuideReader";

const START: Measures = {
  title: "",
  form: "round",
  kind: "tumbler",
  top_mm: 0,
  bottom_mm: 0,
  height_mm: 0,
  width_mm: 0,
  gap_mm: 0,
  bleed_mm: 0,
  safe_mm: 5,
  file_px: [0, 0],
  dpi: null,
  route: "press",
  default_fit: "cover",
  blank_colour: "#f3f2ee",
};

const KINDS = ["tumbler", "mug", "pen", "pillow", "blanket", "flag", "transfer", "garment", "own"] as const;
type Length = "top_mm" | "bottom_mm" | "height_mm" | "width_mm" | "gap_mm" | "bleed_mm" | "safe_mm";

const complete = (m: Measures) =>
  m.form === "round"
    ? Boolean(m.top_mm && m.bottom_mm && m.height_mm)
    : m.form === "flat"
      ? Boolean(m.width_mm && m.height_mm)
      : Boolean(m.file_px?.[0] && m.file_px?.[1]);

/** A custom blank from a few measurements, drawn as they are typed. */
export function MeasureForm({ onKept }: { onKept: (blank: Blank) => void }) {
  const queries = useQueryClient();
  const { unit } = useUnit();
  const [m, setM] = useState<Measures>(START);
  const [across, setAcross] = useState(false);
  const [active, setActive] = useState("");
  const [guide, setGuide] = useState<File | null>(null);
  const ready = complete(m);
  const drawing = useQuery({
    queryKey: ["drawing", m],
    queryFn: ({ signal }) => api.drawing(m, signal),
    enabled: ready,
    placeholderData: (old) => old,
    retry: false,
  });
  const keep = useMutation({
    mutationFn: async () => {
      const blank = await api.keepMeasured(m);
      const [first] = blank.template.panels;
      return guide && first ? api.keepGuide(blank.template.id, first.id, guide) : blank;
    },
    onSuccess: (blank) => {
      for (const key of ["blanks", "board"]) queries.invalidateQueries({ queryKey: [key] });
      onKept(blank);
    },
  });
  const change = (some: Partial<Measures>) => setM((now) => ({ ...now, ...some }));
  const turn = across && m.form === "round" ? Math.PI : 1;
  const length = (name: Length, label: string, round = false) => (
    <ValueField
      key={name}
      onFocus={() => setActive(name)}
      label={label}
      text={m[name] ? show((m[name] ?? 0) / (round ? turn : 1), unit) : ""}
      suffix={unit}
      parse={(text) => parseLength(text, unit, 300)}
      hint="A length, for example 9.3in or 236mm"
      onValue={(mm) => change({ [name]: Math.max(0, mm) * (round ? turn : 1) })}
    />
  );
  const pixels = (i: 0 | 1, label: string) => (
    <ValueField
      onFocus={() => setActive(i ? "px_h" : "px_w")}
      label={label}
      text={m.file_px?.[i] ? String(m.file_px[i]) : ""}
      suffix="px"
      parse={parsePlain}
      hint="Whole pixels"
      onValue={(value) => {
        const px: [number, number] = [...(m.file_px ?? [0, 0])];
        px[i] = Math.max(0, Math.round(value));
        change({ file_px: px });
      }}
    />
  );
  const panel = drawing.data?.panels[0];

  return (
    <div className="grid grid-cols-[19rem_minmax(0,1fr)] gap-6">
      <div className="grid content-start gap-3">
        <Heading>What you have measured</Heading>
        <Choice
          label="What was measured"
          value={m.form}
          onChange={(form) => change({ form, kind: form === "round" ? "tumbler" : "own" })}
          options={[
            { value: "round", label: "Round" },
            { value: "flat", label: "Flat" },
            { value: "pixels", label: "Pixels only" },
          ]}
        />
        <label className="grid gap-0.5 text-sm">
          <span className="text-soft">Name</span>
          <input
            value={m.title}
            maxLength={80}
            placeholder="Hut flask, 17 oz"
            className="rounded-[3px] border border-rule bg-paper px-2 py-1"
            onChange={(event) => change({ title: event.target.value })}
          />
        </label>
        <div className="grid gap-1.5">
          {m.form === "round" && (
            <>
              <Choice
                label="Circumference or diameter"
                value={across ? "across" : "round"}
                onChange={(value) => setAcross(value === "across")}
                options={[
                  { value: "round", label: "All round" },
                  { value: "across", label: "Straight across" },
                ]}
              />
              {length("top_mm", "Top", true)}
              {length("bottom_mm", "Foot", true)}
              {length("height_mm", "Height")}
              {length("gap_mm", "Handle gap")}
            </>
          )}
          {m.form === "flat" && (
            <>
              {length("width_mm", "Width")}
              {length("height_mm", "Height")}
            </>
          )}
          {m.form === "pixels" && (
            <>
              {pixels(0, "Width")}
              {pixels(1, "Height")}
              <ValueField
                label="Resolution (dpi)"
                text={m.dpi ? String(m.dpi) : ""}
                suffix="dpi"
                parse={parsePlain}
                hint="10 to 2400, or leave it empty"
                onValue={(value) => change({ dpi: value || null })}
              />
            </>
          )}
          {length("bleed_mm", "Bleed")}
          {length("safe_mm", "Safe line")}
        </div>
        <GuideReader
          onRead={(some, file) => {
            change(some);
            setGuide(file);
          }}
        />
        <label className="flex items-center gap-2 text-sm">
          <span className="w-16 text-soft">Kind</span>
          <select
            value={m.kind}
            className="grow rounded-[3px] border border-rule bg-paper px-2 py-1"
            onChange={(event) => change({ kind: event.target.value as Measures["kind"] })}
          >
            {KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {kind === "own" ? "something else" : kind}
              </option>
            ))}
          </select>
        </label>
        <Choice
          label="Printed by"
          value={m.route ?? "press"}
          onChange={(route) => change({ route })}
          options={[
            { value: "press", label: "I press it" },
            { value: "upload", label: "A provider" },
          ]}
        />
        <Choice
          label="Usual fit"
          value={m.default_fit ?? "cover"}
          onChange={(default_fit) => change({ default_fit })}
          options={[
            { value: "cover", label: "Cover" },
            { value: "contain", label: "Contain" },
          ]}
        />
        <label className="flex items-center gap-2 text-sm">
          <span className="w-16 text-soft">Colour</span>
          <input
            type="color"
            value={m.blank_colour}
            className="h-7 w-10 border border-rule"
            onChange={(event) => change({ blank_colour: event.target.value })}
          />
        </label>
        {keep.error && <Alert>{keep.error.message}</Alert>}
        <Button tone="main" disabled={!ready || !!drawing.error || keep.isPending} onClick={() => keep.mutate()}>
          Save the blank and add it to the board
        </Button>
      </div>
      <div className="grid content-start gap-4">
        <div>
          <Heading>On the blank</Heading>
          <BodyDrawing measures={m} active={active} unit={unit} />
        </div>
        <div>
          <Heading>Lying flat</Heading>
          {drawing.error && ready && <Alert>{drawing.error.message}</Alert>}
          {!ready && (
            <p className="text-sm text-soft">
              Type the measurements. The print area is drawn as soon as there are enough.
            </p>
          )}
          {drawing.data && panel && ready && !drawing.error && (
            <>
              <BlankDrawing template={drawing.data} width={440} height={260} unit={unit} />
              <p className="text-sm">
                Print file {panel.file_px[0]} × {panel.file_px[1]} px at {panel.dpi} dpi
                {panel.cone &&
                  `; a piece of a ring, ${show(panel.cone.inner_radius_mm, unit)} to ${show(panel.cone.outer_radius_mm, unit)} ${unit} from its centre, ${panel.cone.sweep_deg.toFixed(1)}°, wall ${show(panel.cone.slant_mm, unit)} ${unit}`}
                .
              </p>
            </>
          )}
        </div>
      </div>
    </div>
  );
}
