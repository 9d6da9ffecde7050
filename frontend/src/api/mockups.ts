import { address, data, done, server, upload } from "./http";
import { ofPair, PAIR } from "./places";
import type { Colours, Film, MockupSettings, OwnScene, PhotoMarks, Place } from "./types";

const preset = (name: string) => ({ params: { path: { name } } });
const scene = (scene_id: number) => ({ params: { path: { scene_id } } });

/** Mock-ups: settings, presets, and the seller's own scenes. */
export const mockups = {
  mockupSettings: (place: Place) => data(server.GET(`${PAIR}/mockup-settings`, ofPair(place))),
  setMockupSettings: (place: Place, body: MockupSettings, based_on?: string) =>
    data(server.PUT(`${PAIR}/mockup-settings`, { params: { ...ofPair(place).params, query: { based_on } }, body })),
  makePictures: (place: Place) => data(server.POST(`${PAIR}/mockup-job`, ofPair(place))),
  makeFilm: (place: Place, body: Film) => data(server.POST(`${PAIR}/film-job`, { ...ofPair(place), body })),

  presets: async () => (await data(server.GET("/api/presets"))).presets,
  savePreset: async (name: string, mockup_settings: MockupSettings, colours: Colours) =>
    (await data(server.PUT("/api/presets/{name}", { ...preset(name), body: { mockup_settings, colours } }))).presets,
  removePreset: async (name: string) => (await data(server.DELETE("/api/presets/{name}", preset(name)))).presets,
  applyPreset: (place: Place, name: string) =>
    data(server.POST(`${PAIR}/presets/{name}`, { params: { path: { ...ofPair(place).params.path, name } } })),

  ownScenes: async () => (await data(server.GET("/api/own-scenes"))).scenes,
  beginScene: (photo_id: number, template_id: string, panel_id: string | null) =>
    data(server.POST("/api/own-scenes", { body: { photo_id, template_id, panel_id } })),
  ownScene: (id: number) => data(server.GET("/api/own-scenes/{scene_id}", scene(id))),
  markScene: (id: number, body: { title: string; panel: string; marks: PhotoMarks }, based_on?: string) =>
    data(server.PUT("/api/own-scenes/{scene_id}", { params: { ...scene(id).params, query: { based_on } }, body })),
  makeScene: (id: number) => data(server.POST("/api/own-scenes/{scene_id}/pack", scene(id))),
  importScene: (file: File) => done(server.POST("/api/own-scenes/packs", { body: upload(file) })),
  removeScene: (id: number) => done(server.DELETE("/api/own-scenes/{scene_id}", scene(id))),
  restoreScene: (id: number) => done(server.POST("/api/own-scenes/{scene_id}/restore", scene(id))),
  scenePack: (id: number) => address("/api/own-scenes/{scene_id}/pack", scene(id).params),
  sceneMask: ({ id, key }: OwnScene) =>
    address("/api/own-scenes/{scene_id}/mask", { path: { scene_id: id }, query: { key } }),
  scenePreview: ({ id, key }: OwnScene, artwork_id: number) =>
    address("/api/own-scenes/{scene_id}/look", { path: { scene_id: id }, query: { key, artwork_id } }),
};
