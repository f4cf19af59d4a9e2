import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Shown } from "../../ui/Shown";
import { useKeys } from "../Keys";
import { pressed, type Reports } from "./useReports";

/** The projects behind a figure. */
export function Behind({
	reports,
	of,
}: {
	reports: Reports;
	/** What they are of, where a row was pressed. */
	of?: string;
}) {
	const { asked, pick } = reports;
	const query = { ...asked, ...pick };
	const behind = useQuery({
		queryKey: ["over", "report-projects", query],
		queryFn: () =>
			answer(api.GET("/api/reports/projects", { params: { query } })),
		placeholderData: (before) => before,
	});
	const head = useRef<HTMLHeadingElement>(null);
	const figure = JSON.stringify(pick);
	useEffect(() => head.current?.focus(), [figure]);
	// closed again, the focus is where it was: on the figure, drawn anew where the picture comes back
	useEffect(
		() => () => {
			const { element, name } = pressed;
			requestAnimationFrame(() =>
				(element?.isConnected
					? element
					: document.querySelector<HTMLElement>(
							`main button[aria-label="${CSS.escape(name ?? "")}"]`,
						)
				)?.focus(),
			);
		},
		[],
	);
	useKeys({ Escape: reports.close });
	return (
		<section aria-labelledby="behind">
			<div className="flex flex-wrap items-baseline gap-x-2.5">
				<h2 id="behind" ref={head} tabIndex={-1} className="outline-none">
					{behind.data
						? [behind.data.title, of].filter(Boolean).join(", ")
						: "One moment"}
				</h2>
				<span className="num text-soft" aria-live="polite">
					{behind.data?.count}
				</span>
				<span className="ml-auto print:hidden">
					<Button kind="word" onClick={reports.close}>
						Close
					</Button>
				</span>
			</div>
			<div className="rule" />
			{pick.at && <OfTheMonth reports={reports} />}
			<Shown query={behind}>
				{(found) => (
					<>
						<ul className="max-h-[70vh] overflow-y-auto max-lg:max-h-none print:max-h-none">
							{found.rows.map((row) => (
								<li
									key={row.id}
									className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-4 border-b border-hair py-2"
								>
									<span className="min-w-0">
										<Link to={`/projects/${row.id}`} data-walk>
											<b className="font-[650]">{row.title}</b>
										</Link>
										<span className="under block wrap-anywhere">
											{row.client}, {row.words}
										</span>
									</span>
									<span className="text-right whitespace-nowrap">
										<span className="num block">{row.amount}</span>
										<span className="num under block">came {row.on}</span>
									</span>
								</li>
							))}
						</ul>
						{found.count === 0 && (
							<p className="py-3 text-soft">None of them.</p>
						)}
						{found.more > 0 && (
							<Button
								className="mt-3"
								onClick={() =>
									reports.go({
										most: `${Math.min(2000, found.rows.length + 200)}`,
									})
								}
							>
								Show more: {found.more} besides these
							</Button>
						)}
					</>
				)}
			</Shown>
		</section>
	);
}

const sorts = [
	["Came", "came in"],
	["Won", "of them became work"],
	["NewClients", "new clients"],
] as const;

/** Of one month or year: what came, what became of it, who was new. */
function OfTheMonth({ reports }: { reports: Reports }) {
	return (
		<div className="flex flex-wrap gap-x-4 pt-1 text-[13.5px]">
			{sorts.map(([of, words]) => (
				<Button
					key={of}
					kind="line"
					aria-pressed={reports.pick.of === of}
					className={`min-h-6 ${reports.pick.of === of ? "font-[650]" : "text-soft"}`}
					onClick={() => reports.open({ of, at: reports.pick.at })}
				>
					{words}
				</Button>
			))}
		</div>
	);
}
