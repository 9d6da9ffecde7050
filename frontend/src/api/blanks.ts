import { address, data, done, server, upload } from "./http";
import type { Measures } from "./types";

const blank = (template_id: string) => ({ params: { path: { template_id } } });
const panel = (template_id: string, panel_id: string) => ({ params: { path: { template_id, panel_id } } });

/** Blank products: shipped ones, custom ones, and their guides and profiles. */
export const blanks = {
  blanks: async () => (await data(server.GET("/api/blanks"))).blanks,
  setBoard: (template_ids: string[]) => done(server.PUT("/api/blanks/board", { body: { template_ids } })),
  drawing: (body: Measures, signal?: AbortSignal) => data(server.POST("/api/blanks/drawing", { body, signal })),
  keepMeasured: (body: Measures) => data(server.POST("/api/blanks/measured", { body })),
  importBlank: (file: File) => data(server.POST("/api/blanks/import", { body: upload(file) })),
  blankFile: (id: string) => address("/api/blanks/{template_id}/toml", blank(id).params),
  offerColours: (id: string, part: string, colours: string[] | null) =>
    data(server.PUT("/api/blanks/{template_id}/offered", { ...blank(id), body: { part, colours } })),
  removeBlank: (id: string) => done(server.DELETE("/api/blanks/{template_id}", blank(id))),
  restoreBlank: (id: string) => data(server.POST("/api/blanks/{template_id}/restore", blank(id))),
  setLimit: (id: string, name: string, value: number | null) =>
    data(
      server.PUT("/api/blanks/{template_id}/limits/{name}", {
        params: { path: { template_id: id, name } },
        body: { value },
      }),
    ),

  traceGuide: (file: File) => data(server.POST("/api/blanks/guide", { body: upload(file) })),
  keepGuide: (id: string, panel_id: string, file: File) =>
    data(
      server.PUT("/api/blanks/{template_id}/panels/{panel_id}/guide", { ...panel(id, panel_id), body: upload(file) }),
    ),
  dropGuide: (id: string, panel_id: string) =>
    data(server.DELETE("/api/blanks/{template_id}/panels/{panel_id}/guide", panel(id, panel_id))),
  guide: (id: string, panel_id: string) =>
    address("/api/blanks/{template_id}/panels/{panel_id}/guide", panel(id, panel_id).params),
  keepProfile: (id: string, file: File) =>
    data(server.PUT("/api/blanks/{template_id}/profile", { ...blank(id), body: upload(file) })),
  dropProfile: (id: string) => data(server.DELETE("/api/blanks/{template_id}/profile", blank(id))),
};
