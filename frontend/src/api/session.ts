import { data, server } from "./http";

export const session = {
  session: () => data(server.GET("/api/session")),
  logIn: (password: string) => data(server.POST("/api/session", { body: { password } })),
  logOut: () => data(server.DELETE("/api/session")),
};
