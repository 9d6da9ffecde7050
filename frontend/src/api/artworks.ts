import { address, data, done, forView, server, upload } from "./http";
import type { Art, NewTitles, Origin, Preparation } from "./types";

const at = (artwork_id: number) => ({ params: { path: { artwork_id } } });

/** The board, its artworks and their preparation. */
export const artworks = {
  board: () => data(server.GET("/api/board")),
  boardStates: () => data(server.GET("/api/board/states")),
  boardRow: (art: number) => data(server.GET("/api/board/{artwork_id}", at(art))),
  cell: (art: number, template: string) =>
    data(
      server.GET("/api/board/{artwork_id}/{template_id}", {
        params: { path: { artwork_id: art, template_id: template } },
      }),
    ),
  addArt: (file: File) => data(server.POST("/api/artworks", { body: upload(file) })),
  addPhoto: (file: File) =>
    data(server.POST("/api/artworks", { params: { query: { aside: true } }, body: upload(file) })),
  renameArt: (id: number, title: string) =>
    data(server.PATCH("/api/artworks/{artwork_id}", { ...at(id), body: { title } })),
  renameArts: (body: NewTitles) => data(server.PUT("/api/artworks/titles", { body })),
  removeArt: (id: number) => done(server.DELETE("/api/artworks/{artwork_id}", at(id))),
  restoreArt: (id: number) => data(server.POST("/api/artworks/{artwork_id}/restore", at(id))),
  preview: (art: Art, px: number) =>
    address("/api/artworks/{artwork_id}/preview", {
      path: { artwork_id: art.id },
      query: { px, of: art.sha256.slice(0, 12) },
    }),
  kinds: async () => (await data(server.GET("/api/artworks/steps"))).kinds,
  prepared: (id: number) => data(server.GET("/api/artworks/{artwork_id}/preparation", at(id))),
  prepare: (id: number, body: Preparation, based_on?: string) =>
    data(
      server.PUT("/api/artworks/{artwork_id}/preparation", { params: { ...at(id).params, query: { based_on } }, body }),
    ),
  prepareStep: (id: number, way: "undo" | "redo", based_on?: string) =>
    data(
      server.POST(`/api/artworks/{artwork_id}/preparation/${way}`, {
        params: { ...at(id).params, query: { based_on } },
      }),
    ),
  preparationPreview: (id: number, body: Preparation, px: number, view?: string) =>
    data(
      server.POST("/api/artworks/{artwork_id}/preparation/preview", {
        ...forView(view),
        params: { path: { artwork_id: id }, query: { px } },
        body,
        parseAs: "blob",
      }),
    ),
  preparationReport: (id: number, body: Preparation) =>
    data(server.POST("/api/artworks/{artwork_id}/preparation/report", { ...at(id), body })),
  noteOrigin: (id: number, body: Origin) => data(server.PUT("/api/artworks/{artwork_id}/origin", { ...at(id), body })),
  keepLicence: (id: number, file: File) =>
    data(server.PUT("/api/artworks/{artwork_id}/licence", { ...at(id), body: upload(file) })),
  dropLicence: (id: number) => data(server.DELETE("/api/artworks/{artwork_id}/licence", at(id))),
  licence: (id: number) => address("/api/artworks/{artwork_id}/licence", { path: { artwork_id: id } }),
};
