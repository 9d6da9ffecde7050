import { useState } from "react";
import type { MarketLimits as Limits, Market } from "../api/client";
import { Plain } from "../ui/fields";
import { Button } from "../ui/parts";

const FIELDS = [
  ["title_least", "Title, least", "letters", 0, 1000],
  ["title_most", "Title, most", "letters", 1, 1000],
  ["repeats_most", "One word in it", "times", 1, 20],
  ["tags_most", "Tags, most", "", 0, 100],
  ["tag_most", "A tag, most", "letters", 1, 200],
  ["description_most", "Description, most", "letters", 1, 20000],
  ["search_most", "Search description, most", "letters", 1, 2000],
  ["alt_most", "Words of a picture, most", "letters", 1, 2000],
  ["pictures_most", "Pictures, most", "", 1, 40],
  ["least_px", "Shorter side, least", "px", 0, 5000],
  ["film_s", "Film up to", "s", 0, 600],
] as const;

/** The limits of a marketplace, entered once from its rules. */
export function MarketLimits(props: { market: Market; onLimits: (id: string, limits: Limits | null) => void }) {
  const { market } = props;
  const { id: _, own: __, invented: ___, ...was } = market;
  const [limits, setLimits] = useState<Limits>(was);
  const [name, setName] = useState("");
  const changed = JSON.stringify(limits) !== JSON.stringify(was);
  const fresh = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "");
  return (
    <details className="text-sm">
      <summary className="cursor-pointer text-xs text-soft">
        Title {market.title_least} to {market.title_most} letters, {market.tags_most} tags, {market.pictures_most}{" "}
        pictures…
      </summary>
      <div className="mt-1.5 grid gap-1">
        {market.invented && (
          <p className="text-xs text-soft">
            This marketplace ships with Improva and is invented. Set the limits of the one you sell at.
          </p>
        )}
        {FIELDS.map(([field, label, suffix, least, most]) => (
          <Plain
            key={field}
            label={label}
            value={limits[field]}
            suffix={suffix}
            least={least}
            most={most}
            onValue={(value) => setLimits({ ...limits, [field]: value })}
          />
        ))}
        <label className="grid gap-0.5 text-xs text-soft">
          Save as another marketplace
          <input
            value={name}
            maxLength={60}
            onChange={(event) => setName(event.target.value)}
            className="rounded-[3px] border border-rule bg-paper px-2 py-1 text-sm text-ink"
          />
        </label>
        <div className="flex gap-2">
          <Button
            disabled={!changed && !fresh}
            onClick={() => props.onLimits(fresh || market.id, fresh ? { ...limits, title: name.trim() } : limits)}
          >
            {fresh ? "Add it" : "Set these limits"}
          </Button>
          {market.own && <Button onClick={() => props.onLimits(market.id, null)}>Remove my limits</Button>}
        </div>
      </div>
    </details>
  );
}
