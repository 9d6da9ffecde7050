import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Measures } from "../api/client";
import { FileButton } from "../ui/FileButton";
import { MM_PER_IN } from "../ui/measure";
import { Alert } from "../ui/parts";

/** Zones read from a provider's guide: its size in pixels, and its transparent part. */
export function GuideReader({ onRead }: { onRead: (some: Partial<Measures>, guide: File) => void }) {
  const [summary, setSummary] = useState<string | null>(null);
  const read = useMutation({
    mutationFn: (file: File) => api.traceGuide(file),
    onSuccess: (guide, file) => {
      const dpi = guide.claimed_mm ? (guide.px[0] / guide.claimed_mm[0]) * MM_PER_IN : 300;
      const mm = (px: number) => (px / dpi) * MM_PER_IN;
      const [w, h] = guide.px;
      const bleed = guide.trim ? Math.min(guide.trim[0] * w, guide.trim[1] * h) : 0;
      onRead(
        { form: "pixels", kind: "own", file_px: guide.px, dpi: Math.round(dpi * 100) / 100, bleed_mm: mm(bleed) },
        file,
      );
      setSummary(
        guide.trim
          ? `${w} × ${h} px. Its clear part was taken as the trim${guide.rectangular < 0.97 ? ", though it is not a rectangle" : ""}.`
          : `${w} × ${h} px. Nothing in it is clear, so give bleed and safe line by hand.`,
      );
    },
  });
  return (
    <div className="text-sm">
      <FileButton
        name="Guide file"
        accept=".png,.svg,.pdf"
        className="w-full"
        onFiles={([file]) => file && read.mutate(file)}
      >
        Read a provider's guide file
      </FileButton>
      {read.error && <Alert>{read.error.message}</Alert>}
      {summary && <p className="mt-1 text-xs text-soft">{summary}</p>}
    </div>
  );
}
