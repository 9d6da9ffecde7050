import { Link } from "react-router";

export function NotFoundPage() {
  return (
    <main className="mx-auto max-w-md p-12">
      <h1 className="mb-2 text-xl font-bold">There is nothing at this address</h1>
      <Link to="/" className="underline">
        Go to the range board
      </Link>
    </main>
  );
}
