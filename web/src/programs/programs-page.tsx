import { Link } from 'react-router';
import { KeysSection } from './keys-section.tsx';
import { WebhooksSection } from './webhooks-section.tsx';

/** Other programs of the shop and of its owners: who comes in, and who is told. */
export function ProgramsPage() {
  return (
    <main className="mx-auto flex w-full max-w-[960px] flex-col gap-5 p-5">
      <p className="text-14">
        <Link className="underline" to="/settings">
          Settings of the shop
        </Link>
      </p>
      <h1 className="text-23">Other programs</h1>
      <KeysSection />
      <WebhooksSection />
    </main>
  );
}
