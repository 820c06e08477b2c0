import type { ReactNode } from 'react';
import { signInLayoutTexts } from './texts.js';

/** The page before the app: its name, the thread, and a form. */
export function SignInLayout({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="mx-auto flex min-h-full max-w-4xl items-center gap-16 px-8 py-12">
      <div className="hidden shrink-0 self-stretch border-l-[3px] border-thread md:block" />
      <div className="flex max-w-md flex-col gap-6">
        <div>
          <p className="text-soft">{signInLayoutTexts.yellowThread}</p>
          <h1 className="text-[28px]">{title}</h1>
          <p className="mt-2 text-soft">{signInLayoutTexts.whatPeopleWroteWhat}</p>
        </div>
        {children}
      </div>
    </main>
  );
}
