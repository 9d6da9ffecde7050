import { useQuery } from "@tanstack/react-query";
import { Search } from "lucide-react";
import { useId, useState } from "react";
import { Link } from "react-router";
import { api, type Hit } from "../api/client";

const FIRST_BLANK = "tumbler-20oz-straight";

/** Finds artworks, listings, samples, pressings and files by their words, from anywhere on the board. */
export function SearchField({ blank }: { blank: string | undefined }) {
  const id = useId();
  const [words, setWords] = useState("");
  const text = words.trim();
  const results = useQuery({
    queryKey: ["search", text],
    queryFn: () => api.search(text),
    enabled: text.length > 1,
    placeholderData: (old) => old,
    staleTime: 0,
  });
  const open = text.length > 1 && results.data !== undefined;
  const to = (hit: Hit) => `/bench/${hit.artwork_id}/${hit.template_id ?? blank ?? FIRST_BLANK}/${stationOf(hit)}`;
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: Escape closes what its field has opened
    <div className="relative" onKeyDown={(event) => event.key === "Escape" && setWords("")}>
      <div className="flex items-center rounded-[3px] border border-rule bg-paper pl-2">
        <Search size={15} aria-hidden="true" className="text-soft" />
        <input
          type="search"
          aria-label="Search"
          aria-controls={open ? id : undefined}
          placeholder="Search"
          value={words}
          onChange={(event) => setWords(event.target.value)}
          className="w-44 bg-transparent px-2 py-1 text-sm"
        />
      </div>
      {open && (
        <ul
          id={id}
          aria-label="Found"
          className="absolute right-0 z-20 mt-1 max-h-96 w-[26rem] overflow-y-auto border border-ink bg-paper"
        >
          {results.data?.length === 0 && <li className="p-2 text-sm text-soft">No results for “{words}”.</li>}
          {results.data?.map((hit) => (
            <li key={`${hit.artwork_id} ${hit.template_id} ${hit.what} ${hit.detail}`}>
              <Link to={to(hit)} className="block px-3 py-1.5 text-sm hover:bg-table focus:bg-table">
                <b>{hit.title}</b>
                <span className="block truncate text-xs text-soft">
                  {hit.what}: {hit.detail}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** The address of a search result. */
function stationOf(hit: Hit): string {
  if (hit.what === "sample") return "sell?part=providers";
  if (hit.what === "listing" || hit.what === "words") return "sell?part=listing";
  if (hit.what === "pressing") return "press";
  return hit.what === "artwork" || hit.what === "origin" ? "artwork" : "print";
}
