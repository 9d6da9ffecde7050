import { data, done, server, upload } from "./http";
import { ofPair, PAIR } from "./places";
import type {
  Learned,
  Listing,
  ListingChange,
  ListingSlot,
  MarketLimits,
  Offer,
  OrdersForm,
  Place,
  PlanSettings,
  ProofState,
  SampleChange,
  Sell,
  SellChange,
} from "./types";

const market = (market_id: string) => ({ params: { path: { market_id } } });
const provider = (name: string) => ({ params: { path: { name } } });
const sample = (sample_id: number) => ({ params: { path: { sample_id } } });
const offer = (place: Place, name: string) => ({ params: { path: { ...ofPair(place).params.path, name } } });

/** Parts of a change that stay unchanged; for the server, null means "no new value". */
const SALE_UNCHANGED = { shop: null, costs: null, sale: null };
const LISTING_UNCHANGED = {
  market: null,
  slots: null,
  proposed: false,
  film: null,
  art_words: null,
  blank_words: null,
};

/** Selling: prices, listings, providers and orders. */
export const selling = {
  selling: (place: Place) => data(server.GET(`${PAIR}/selling`, ofPair(place))) as Promise<Sell>,
  decideSelling: (place: Place, change: SellChange) =>
    data(server.PUT(`${PAIR}/selling`, { ...ofPair(place), body: { ...SALE_UNCHANGED, ...change } })) as Promise<Sell>,

  listing: (place: Place) => data(server.GET(`${PAIR}/listing`, ofPair(place))) as Promise<Listing>,
  decideListing: (place: Place, change: ListingChange) =>
    data(
      server.PUT(`${PAIR}/listing`, { ...ofPair(place), body: { ...LISTING_UNCHANGED, ...change } }),
    ) as Promise<Listing>,
  listingPreview: (place: Place, body: ListingSlot) =>
    data(server.POST(`${PAIR}/listing/preview`, { ...ofPair(place), body, parseAs: "blob" })),
  overrule: (place: Place, why: string) =>
    data(server.POST(`${PAIR}/listing/overruling`, { ...ofPair(place), body: { why } })) as Promise<Listing>,
  withdrawOverruling: (place: Place) =>
    data(server.DELETE(`${PAIR}/listing/overruling`, ofPair(place))) as Promise<Listing>,
  makePack: (place: Place) => data(server.POST(`${PAIR}/listing-job`, ofPair(place))),
  submitPack: (place: Place, url: string) =>
    data(server.POST(`${PAIR}/listing/submission`, { ...ofPair(place), body: { url } })) as Promise<Listing>,
  setMarket: (id: string, body: MarketLimits) =>
    done(server.PUT("/api/marketplaces/{market_id}", { ...market(id), body })),
  resetMarket: (id: string) => done(server.DELETE("/api/marketplaces/{market_id}", market(id))),

  providers: (place: Place) => data(server.GET(`${PAIR}/providers`, ofPair(place))),
  keepProvider: (name: string, origin: string, note: string) =>
    done(server.PUT("/api/providers/{name}", { ...provider(name), body: { origin, note } })),
  removeProvider: (name: string) => done(server.DELETE("/api/providers/{name}", provider(name))),
  keepOffer: (place: Place, name: string, body: Offer) =>
    data(server.PUT(`${PAIR}/providers/{name}/offer`, { ...offer(place, name), body })),
  takeCosts: (place: Place, name: string) => data(server.POST(`${PAIR}/providers/{name}/costs`, offer(place, name))),
  addSample: (place: Place, body: SampleChange) => data(server.POST(`${PAIR}/samples`, { ...ofPair(place), body })),
  changeSample: (id: number, body: SampleChange) =>
    data(server.PUT("/api/samples/{sample_id}", { ...sample(id), body })),
  removeSample: (id: number) => data(server.DELETE("/api/samples/{sample_id}", sample(id))),
  learned: (id: number, body: Learned) =>
    data(server.POST("/api/samples/{sample_id}/learned", { ...sample(id), body })),
  addSamplePhoto: (id: number, file: File) =>
    data(server.POST("/api/samples/{sample_id}/photos", { ...sample(id), body: upload(file) })),

  orders: (place: Place) => data(server.GET(`${PAIR}/orders`, ofPair(place))),
  plan: () => data(server.GET("/api/plan")),
  putPlanSettings: (body: PlanSettings) => data(server.PUT("/api/plan/settings", { body })),
  orderItems: () => data(server.GET("/api/orders")),
  putOrderState: (ids: number[], state: ProofState, words: string) =>
    data(server.PUT("/api/orders/state", { body: { ids, state, words } })),
  printApproved: (place: Place) => data(server.POST(`${PAIR}/orders/approved`, ofPair(place))),
  makeOrders: (place: Place, table: File, photos: File[], held: boolean) => {
    const form = upload(table) as unknown as FormData;
    form.append("held", String(held));
    for (const photo of photos) form.append("photos", photo);
    return data(server.POST(`${PAIR}/orders`, { ...ofPair(place), body: form as unknown as OrdersForm }));
  },
  makeOrder: (
    place: Place,
    name: string,
    values: Record<string, string>,
    photos: Record<string, number>,
    quantity: number,
    held: boolean,
  ) => data(server.POST(`${PAIR}/order`, { ...ofPair(place), body: { name, values, photos, quantity, held } })),
};
