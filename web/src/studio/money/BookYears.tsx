import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import type { BookYearDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Shown } from "../../ui/Shown";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";

/** Each year with its folder; one that is over can be closed. */
export function BookYears() {
	const years = useQuery({
		queryKey: ["over", "book-years"],
		queryFn: () => answer(api.GET("/api/money/years")),
	});
	return (
		<section aria-label="Years">
			<h2 className="rule pb-1.5">Years</h2>
			<p className="pt-2 text-soft">
				A folder holds the journal, what was billed, tax and accounts as tables,
				every invoice as PDF and as data, every receipt, and a control: what all
				entries come to beside the change of all balances.
			</p>
			<Shown query={years}>
				{(all) => (
					<ul>
						{all.map((year) => (
							<Year key={year.year} year={year} />
						))}
					</ul>
				)}
			</Shown>
		</section>
	);
}

function Year({ year }: { year: BookYearDto }) {
	const act = useAct("below");
	const offer = useUndo();
	const set = (closed: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/money/years/{year}/closed", {
					params: { path: { year: year.year } },
					body: { closed },
				}),
			),
		);
	return (
		<li className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-hair py-3">
			<b className="font-head text-[17px] font-semibold">{year.year}</b>
			<span className="min-w-0 flex-1">
				{year.entries} {year.entries === 1 ? "entry" : "entries"}, which come to{" "}
				<span className="num">{year.control}</span>
				<span className="under block">
					{year.closed
						? `closed ${year.closed}`
						: year.isOver
							? "open"
							: "goes on"}
					{year.withoutReceipt > 0 &&
						`; ${year.withoutReceipt} ${year.withoutReceipt === 1 ? "cost has" : "costs have"} no receipt`}
				</span>
				{year.changed && (
					<b className="block font-[650]">
						When it was closed they came to {year.changed}: hand it over again.
					</b>
				)}
			</span>
			{year.isOver && (
				<Button
					disabled={act.busy}
					onClick={async () => {
						if (await set(!year.closed))
							offer({
								words: year.closed
									? `${year.year} is open again`
									: `${year.year} is closed`,
								undo: () => set(Boolean(year.closed)),
							});
					}}
				>
					{year.closed ? `Open ${year.year}` : `Close ${year.year}`}
				</Button>
			)}
			<Button asChild kind="go">
				<a href={`/api/money/years/${year.year}/folder.zip`}>
					Folder of {year.year}
				</a>
			</Button>
		</li>
	);
}
