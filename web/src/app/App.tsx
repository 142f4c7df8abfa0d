import { QueryClient, QueryClientProvider, useQuery } from "@tanstack/react-query";
import { RouterProvider } from "@tanstack/react-router";
import { libraryQuery } from "@/api/queries";
import { Button } from "@/ui/controls";
import { UnitsProvider } from "@/ui/units";
import { router } from "./router";

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 0 } } });

export function App() {
  return (
    <QueryClientProvider client={queries}>
      <Opened />
    </QueryClientProvider>
  );
}

function Opened() {
  const library = useQuery(libraryQuery);
  if (library.data) {
    return (
      <UnitsProvider kinds={library.data.kinds}>
        <RouterProvider router={router} />
      </UnitsProvider>
    );
  }
  return (
    <main className="grid min-h-screen place-items-center p-8">
      {library.isError ? (
        <div role="alert" className="max-w-md">
          <p className="mb-3">
            {library.error.message} Start it with ./run when it does not run, then try again.
          </p>
          <Button onClick={() => void library.refetch()}>Try again</Button>
        </div>
      ) : (
        <p className="text-quiet">Opening…</p>
      )}
    </main>
  );
}
