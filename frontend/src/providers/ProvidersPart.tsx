import { useState } from "react";
import { api, type Pair, type Panel, type Place } from "../api/client";
import { Alert, Button, Heading } from "../ui/parts";
import { Waiting } from "../ui/Waiting";
import { CompareTable } from "./CompareTable";
import { OfferPart } from "./OfferPart";
import { SamplesPart } from "./SamplesPart";
import { useProviders } from "./useProviders";

/** Providers compared for this blank, and the samples of this pair. */
export function ProvidersPart({ place, pair, panel }: { place: Place; pair: Pair; panel: Panel }) {
  const providing = useProviders(place);
  const { state } = providing;
  const [chosen, setChosen] = useState<string | null>(null);
  const [name, setName] = useState("");
  if (!state)
    return (
      <Waiting problem={providing.problem} onRetry={providing.retry}>
        Comparing…
      </Waiting>
    );
  const provider = state.providers.find((each) => each.name === chosen) ?? state.providers[0];
  return (
    <div
      aria-busy={providing.busy}
      className="grid min-h-0 grow grid-cols-[minmax(0,1fr)_25rem] grid-rows-[minmax(0,1fr)]"
    >
      <section aria-label="Providers" className="flex min-h-0 flex-col gap-4 overflow-y-auto border-r border-rule p-4">
        {providing.problem && <Alert>{providing.problem}</Alert>}
        <Heading aside="one printed piece at the buyer’s door">Providers of {pair.template.title}</Heading>
        {state.providers.length === 0 ? (
          <p className="text-sm text-soft">
            No providers yet. Add who could make it, what they charge and where they ship: Improva works out the cost of
            a piece at the buyer’s door.
          </p>
        ) : (
          <CompareTable state={state} chosen={provider?.name ?? null} onChoose={setChosen} />
        )}
        <form
          className="flex gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            const fresh = name.trim();
            if (!fresh) return;
            providing.change(() => api.keepProvider(fresh, "", ""));
            setChosen(fresh);
            setName("");
          }}
        >
          <input
            aria-label="Name of a provider"
            placeholder="Name of the provider"
            value={name}
            maxLength={80}
            onChange={(event) => setName(event.target.value)}
            className="min-w-0 grow rounded-[3px] border border-rule bg-paper px-2 py-1 text-sm"
          />
          <Button type="submit" disabled={!name.trim()}>
            Add the provider
          </Button>
        </form>
        {provider && (
          <OfferPart
            key={provider.name}
            provider={provider}
            state={state}
            providing={providing}
            place={place}
            panel={panel}
          />
        )}
      </section>
      <section aria-label="Samples" className="flex min-h-0 flex-col gap-3 overflow-y-auto p-4">
        <SamplesPart state={state} providing={providing} place={place} panel={panel} />
      </section>
    </div>
  );
}
