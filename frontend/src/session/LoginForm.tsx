import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../api/client";
import { Alert, Button } from "../ui/parts";

/** The password field and its button. After the log-in everything on the page is fetched again. */
export function LoginForm() {
  const queries = useQueryClient();
  const [password, setPassword] = useState("");
  const entry = useMutation({
    mutationFn: api.logIn,
    onSuccess: () => queries.invalidateQueries(),
  });
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        entry.mutate(password);
      }}
    >
      <label className="flex flex-col gap-1">
        The board's password
        <input
          type="password"
          autoComplete="current-password"
          // biome-ignore lint/a11y/noAutofocus: the form is all there is to do
          autoFocus
          className="min-h-8 rounded-[3px] border border-rule px-2"
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
      </label>
      {entry.error && <Alert>{entry.error.message}</Alert>}
      <Button tone="main" type="submit" disabled={!password || entry.isPending}>
        Log in
      </Button>
    </form>
  );
}
