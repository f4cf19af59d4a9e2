import type { CSSProperties, ReactNode } from "react";
import { Alert } from "../ui/Alert";

/** The studio's own page around everything a client sees. */
export function Frame({
	studio,
	brand,
	logo,
	right,
	children,
}: {
	studio: string;
	brand: string;
	logo?: string | null;
	right?: string;
	children: ReactNode;
}) {
	return (
		<div
			className="client min-h-screen bg-sheet text-[16px]"
			style={{ "--brand": brand } as CSSProperties}
		>
			<header className="flex min-h-16 flex-wrap items-center gap-x-3 border-b border-hair px-5 py-3 md:px-24">
				{logo && <img src={logo} alt="" className="max-h-11 max-w-40" />}
				<b className="font-head text-[17px] font-[650]">{studio}</b>
				{right && (
					<span className="text-[14px] text-soft sm:ml-auto">{right}</span>
				)}
			</header>
			<main className="px-5 py-5 md:px-24">{children}</main>
		</div>
	);
}

/** A page that could not be loaded, or is not there yet. */
export function Notice({
	title,
	children,
}: {
	title: string;
	children?: ReactNode;
}) {
	return (
		<main className="client mx-auto min-h-screen max-w-xl bg-sheet p-6 text-[16px]">
			<h1 className="mb-3">{title}</h1>
			{children}
		</main>
	);
}

export function Failed({ error }: { error: Error }) {
	return (
		<Notice title="This page cannot be shown">
			<Alert>{error.message}</Alert>
		</Notice>
	);
}
