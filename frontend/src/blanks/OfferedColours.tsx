import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type Blank } from "../api/client";
import { Alert, Heading } from "../ui/parts";

type Part = Blank["parts"][number];

/** The colours in which the seller offers a blank: only these are pictured and listed. */
export function OfferedColours({ blank }: { blank: Blank }) {
  const queries = useQueryClient();
  const save = useMutation({
    mutationFn: ({ part, colours }: { part: Part; colours: string[] }) =>
      api.offerColours(blank.template.id, part.id, colours.length ? colours : null),
    onSuccess: () => {
      for (const key of ["blanks", "listing"]) queries.invalidateQueries({ queryKey: [key] });
    },
  });
  if (!blank.parts.length) return null;
  return (
    <div className="grid gap-2" aria-busy={save.isPending}>
      <Heading aside="only these are pictured and listed">Colours you offer</Heading>
      {save.error && <Alert>{save.error.message}</Alert>}
      {blank.parts.map((part) => {
        const offered = part.offered ?? (part.usual ? [part.usual] : []);
        return (
          <fieldset key={part.id} className="flex flex-wrap items-center gap-x-3 gap-y-1 text-sm">
            <legend className="float-left mr-3 text-soft">{part.title}</legend>
            {Object.entries(part.colours).map(([name, hex]) => (
              <label key={name} className="flex min-h-6 items-center gap-1.5">
                <input
                  type="checkbox"
                  className="accent-accent"
                  checked={offered.includes(name)}
                  onChange={(event) =>
                    save.mutate({
                      part,
                      colours: Object.keys(part.colours).filter((each) =>
                        each === name ? event.target.checked : offered.includes(each),
                      ),
                    })
                  }
                />
                <span style={{ background: hex }} className="size-4 rounded-[3px] border border-rule" />
                {name}
              </label>
            ))}
          </fieldset>
        );
      })}
    </div>
  );
}
