import type { ReactNode } from "react";
import type { WeekDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Kbd } from "../../ui/Kbd";
import type { Where } from "./useWeek";

/** What is looked at, how full it is, and the way to others. */
export function WeekHead({
	title,
	load,
	around,
	step,
	onGo,
	children,
}: {
	title: string;
	load: string;
	around: WeekDto["around"];
	step: "week" | "month";
	onGo: (to: Where) => void;
	children?: ReactNode;
}) {
	const other = step === "week" ? "month" : "week";
	return (
		<div className="flex flex-wrap items-end gap-x-5 gap-y-1 px-5 pt-4 pb-2.5 max-md:px-4 print:px-0 print:pt-0">
			<h1>{title}</h1>
			<p className="text-soft">{load}</p>
			<nav
				aria-label="Other days"
				className="ml-auto flex flex-wrap items-baseline gap-x-3.5 gap-y-1 text-soft max-md:ml-0 print:hidden"
			>
				<Button kind="line" onClick={() => onGo({ day: around.last })}>
					<Kbd>[</Kbd> last<span className="sr-only"> {step}</span>
				</Button>
				<Button kind="word" onClick={() => onGo({ day: around.present })}>
					this {step}
				</Button>
				<Button kind="line" onClick={() => onGo({ day: around.next })}>
					next<span className="sr-only"> {step}</span> <Kbd>]</Kbd>
				</Button>
				<Button kind="word" onClick={() => onGo({ by: other })}>
					{other}
				</Button>
				{children}
				<Button
					kind="word"
					className="max-md:hidden"
					onClick={() => window.print()}
				>
					print
				</Button>
			</nav>
		</div>
	);
}
