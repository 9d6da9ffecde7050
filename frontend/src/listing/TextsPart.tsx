import { useId } from "react";
import type { Listing, Pair } from "../api/client";
import { INPUT, KeptText } from "../ui/KeptText";
import { Heading } from "../ui/parts";
import type { Listings } from "./useListing";

const parted = (text: string) =>
  text
    .split(/[,;\n]/)
    .map((tag) => tag.trim())
    .filter(Boolean);

/** The parts of a listing's text: those of the design, and those stored for the blank. */
export function TextsPart({ listing, listings, pair }: { listing: Listing; listings: Listings; pair: Pair }) {
  const { art_words: art, blank_words: blank } = listing;
  const own = (change: Partial<Listing["art_words"]>) => listings.decide({ art_words: { ...art, ...change } });
  const saveBlankWords = (change: Partial<Listing["blank_words"]>) =>
    listings.decide({ blank_words: { ...blank, ...change } });
  return (
    <>
      <div className="grid gap-2">
        <Heading aside="on every blank">Text of this design</Heading>
        <Text label="Name for buyers" value={art.name} hint={pair.artwork.title} onValue={(name) => own({ name })} />
        <Text
          label="Sentence about this design"
          rows={3}
          value={art.line}
          hint="One or two sentences about this design"
          onValue={(line) => own({ line })}
        />
        <Text
          label="Tags"
          rows={2}
          value={art.tags.join(", ")}
          hint="separated by commas"
          onValue={(tags) => own({ tags: parted(tags) })}
        />
      </div>
      <div className="grid gap-2">
        <Heading aside="for every design">Text of {pair.template.title}</Heading>
        <Text label="Title" value={blank.title} onValue={(title) => saveBlankWords({ title })} />
        <Text
          label="Description"
          rows={7}
          value={blank.text}
          hint="What it is, its care, its shipping"
          onValue={(text) => saveBlankWords({ text })}
        />
        <Text
          label="Tags"
          name="Tags of the blank"
          rows={2}
          value={blank.tags.join(", ")}
          hint="separated by commas"
          onValue={(tags) => saveBlankWords({ tags: parted(tags) })}
        />
        <Text
          label="Search description"
          rows={2}
          value={blank.search}
          onValue={(search) => saveBlankWords({ search })}
        />
        <details className="text-xs text-soft">
          <summary className="cursor-pointer">Placeholders for these words</summary>
          <dl className="mt-1 grid grid-cols-[auto_minmax(0,1fr)] gap-x-2">
            {Object.entries(listing.fields).map(([name, what]) => (
              <div key={name} className="contents">
                <dt className="font-medium text-ink">{`{${name}}`}</dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
        </details>
      </div>
    </>
  );
}

/** A text field with its label above it. */
function Text(props: {
  label: string;
  /** Accessible name where the same label appears twice. */
  name?: string;
  value: string;
  rows?: number;
  hint?: string;
  onValue: (value: string) => void;
}) {
  const id = useId();
  const { label, ...rest } = props;
  return (
    <div className="grid gap-0.5">
      <label htmlFor={id} className="text-xs text-soft">
        {label}
      </label>
      <KeptText id={id} className={`${INPUT} resize-y`} {...rest} />
    </div>
  );
}
