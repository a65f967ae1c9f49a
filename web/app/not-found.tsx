import { Link } from "@/ui/address";

export default function NotFound() {
  return (
    <main className="mx-auto max-w-[640px] px-6 py-16">
      <h1>Page not found</h1>
      <p className="mt-3">It may belong to another workshop, or the address is mistyped.</p>
      <Link className="action-button mt-5" href="/">
        Go to today
      </Link>
    </main>
  );
}
