import type { MockupSettings, Place, Scene } from "../api/client";
import { ArtPick, useArts } from "../pieces/ArtPick";
import { Heading } from "../ui/parts";
import type { Mockups } from "./useMockups";

/** The content of each copy in a scene: this artwork at an angle, or another artwork. */
export function PlacesPart(props: { scene: Scene; place: Place; shows: Mockups; settings: MockupSettings }) {
  const { scene, place, shows, settings } = props;
  const arts = useArts([]).filter((art) => art.id !== place.art);
  const chosen = settings.places[scene.id] ?? {};
  const set = (place: string, art: number | null) => {
    const { [place]: _, ...rest } = chosen;
    const next = art === null ? rest : { ...rest, [place]: art };
    shows.change({ places: { ...settings.places, [scene.id]: next } });
  };
  return (
    <div className="grid gap-1.5">
      <Heading aside={scene.title}>Places</Heading>
      {scene.regions
        .filter((region) => region.place)
        .map((region) => (
          <ArtPick
            key={region.id}
            arts={arts}
            label={(region.place ?? "").replace(/^./, (letter) => letter.toUpperCase())}
            value={chosen[region.id] ?? null}
            none="This artwork"
            onValue={(art) => set(region.id, art)}
          />
        ))}
    </div>
  );
}
