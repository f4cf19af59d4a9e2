import { Dialog } from "radix-ui";
import { type ReactNode, useRef } from "react";

/** A window over the page, for what is said once and then done. */
export function Window({
	title,
	open,
	onClose,
	wide,
	children,
}: {
	title: string;
	open: boolean;
	onClose: () => void;
	/** “page” for what is looked at rather than filled in. */
	wide?: boolean | "page";
	children: ReactNode;
}) {
	const body = useRef<HTMLDivElement>(null);
	const before = useRef<Element>(null);
	const was = useRef(false);
	// a field inside may take the focus by itself, before the window is told that it opened
	if (open && !was.current) before.current = document.activeElement;
	was.current = open;
	return (
		<Dialog.Root open={open} onOpenChange={(still) => !still && onClose()}>
			<Dialog.Portal>
				<Dialog.Overlay className="fixed inset-0 z-10 bg-black/35" />
				<Dialog.Content
					aria-describedby={undefined}
					onOpenAutoFocus={(event) => {
						before.current = document.activeElement;
						event.preventDefault();
						if (event.target instanceof HTMLElement) event.target.focus();
						enter(body.current);
					}}
					onCloseAutoFocus={(event) => {
						// to where it was opened from, by whatever key or act
						event.preventDefault();
						if (before.current instanceof HTMLElement) before.current.focus();
					}}
					className={`fixed top-[8vh] left-1/2 z-20 max-h-[84vh] -translate-x-1/2 overflow-auto border-[1.5px] border-ink bg-sheet p-5 ${widths[`${wide ?? false}`]}`}
				>
					<div className="mb-3 flex items-start">
						<Dialog.Title asChild>
							<h2>{title}</h2>
						</Dialog.Title>
						<Dialog.Close className="link ml-auto text-small">
							Close
						</Dialog.Close>
					</div>
					<div ref={body}>{children}</div>
				</Dialog.Content>
			</Dialog.Portal>
		</Dialog.Root>
	);
}

const widths = {
	false: "w-[min(460px,calc(100vw-24px))]",
	true: "w-[min(680px,calc(100vw-24px))]",
	page: "w-[min(980px,calc(100vw-24px))]",
};

/** Into what it asks for, not on its way out: as soon as that is there, unless somebody has gone elsewhere meanwhile. */
function enter(body: HTMLElement | null) {
	const first = firstOf(body);
	if (first) return first.focus();
	if (!body) return;
	const from = document.activeElement;
	const watch = new MutationObserver(() => {
		const came = firstOf(body);
		if (!came) return;
		watch.disconnect();
		if (document.activeElement === from) came.focus();
	});
	watch.observe(body, { childList: true, subtree: true });
}

/** What is chosen of a choice, else the first thing that can be filled in, else the first that can be pressed. */
const firstOf = (body: HTMLElement | null) =>
	["input[type=radio]:checked", "input, select, textarea", "button, a[href]"]
		.map((which) =>
			[...(body?.querySelectorAll<HTMLElement>(which) ?? [])].find(
				(one) => !one.matches(":disabled, [type=hidden], [type=file]"),
			),
		)
		.find(Boolean);
