import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type Blank, type Limit, type Pair } from "../api/client";
import { FileButton } from "../ui/FileButton";
import { parsePlain } from "../ui/measure";
import { Alert, Heading } from "../ui/parts";
import { ValueField } from "../ui/ValueField";

const plain = (value: number) => String(Math.round(value * 1000) / 1000);

/** The limits of a blank: each can be changed, and its default is always shown. */
export function Limits({ pair }: { pair: Pair }) {
  const queries = useQueryClient();
  const id = pair.template.id;
  const blanks = useQuery({ queryKey: ["blanks"], queryFn: api.blanks });
  const blank = blanks.data?.find((b) => b.template.id === id);
  const change = useMutation({
    mutationFn: (work: () => Promise<Blank>) => work(),
    onSuccess: () => {
      for (const key of ["blanks", "pair", "board"]) queries.invalidateQueries({ queryKey: [key] });
    },
  });
  if (!blank) return null;
  const set = (limit: Limit, value: number | null) => change.mutate(() => api.setLimit(id, limit.name, value));
  return (
    <details>
      <summary className="cursor-pointer text-sm font-bold">Limits of {pair.template.title}</summary>
      <div className="mt-2 grid gap-2">
        {change.error && <Alert>{change.error.message}</Alert>}
        {blank.limits.map((limit) => (
          <div key={limit.name}>
            <p className="text-sm" title={limit.source}>
              {limit.title}
            </p>
            <ValueField
              label=""
              name={limit.title}
              text={plain(limit.value)}
              suffix={limit.unit}
              parse={parsePlain}
              hint={`${limit.least} to ${limit.most}`}
              onValue={(value) => set(limit, value)}
            />
            <p className="text-right text-xs text-soft">
              {limit.changed ? (
                <button type="button" className="underline" onClick={() => set(limit, null)}>
                  back to {plain(limit.default)}, default
                </button>
              ) : (
                "default"
              )}
            </p>
          </div>
        ))}
        <Heading>Printer's colour profile</Heading>
        {blank.profile ? (
          <p className="text-sm">
            {blank.profile}{" "}
            <button type="button" className="underline" onClick={() => change.mutate(() => api.dropProfile(id))}>
              Remove
            </button>
          </p>
        ) : (
          <p className="text-xs text-soft">Add a printer's ICC profile to find the colours that it cannot print.</p>
        )}
        <FileButton
          name="ICC profile"
          accept=".icc,.icm"
          onFiles={([file]) => file && change.mutate(() => api.keepProfile(id, file))}
        >
          {blank.profile ? "Choose another" : "Choose a profile"}
        </FileButton>
      </div>
    </details>
  );
}
