import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { ErasedDto, KeptOfErasedDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { Section } from "../templates/Section";
import { useAct } from "../useAct";

/** For how many years papers are kept, and those of people who were erased. */
export function Erased() {
	const erased = useQuery({
		queryKey: ["over", "erased"],
		queryFn: () => answer(api.GET("/api/erased")),
	});
	const over = erased.data?.kept.filter((one) => one.over).length ?? 0;
	return (
		<Section
			title="Erasing people"
			under={
				over > 0
					? `Papers of ${over === 1 ? "1 project" : `${over} projects`} may go.`
					: "How long the law keeps papers, and what is kept of who was erased."
			}
		>
			<Shown query={erased}>
				{(data) => (
					<div className="grid gap-4">
						<p>
							Somebody is erased from their own page, under People. Their words
							go at once; what the law keeps stays until its years are over,
							counted from the end of the year of a paper.
						</p>
						<Years key={JSON.stringify(data.years)} years={data.years} />
						{data.clearing && (
							<p role="status">
								Since {data.clearing} the disk is being cleared of what was
								erased; it is tried again every few minutes.
							</p>
						)}
						<KeptOnes kept={data.kept} />
					</div>
				)}
			</Shown>
		</Section>
	);
}

function Years({ years }: { years: ErasedDto["years"] }) {
	const act = useAct();
	const [said, setSaid] = useState(years);
	function keep(event: FormEvent) {
		event.preventDefault();
		act.run(() => answer(api.PUT("/api/erased/years", { body: said })));
	}
	return (
		<form onSubmit={keep} className="flex flex-wrap items-end gap-3">
			<CountField
				label="Years for invoices, payments and receipts"
				min={0}
				max={30}
				wrong={act.refusal?.of("bookYears")}
				value={said.bookYears}
				onChange={(bookYears) =>
					setSaid({ ...said, bookYears: bookYears ?? 0 })
				}
			/>
			<CountField
				label="Years for contracts and accepted proposals"
				min={0}
				max={30}
				wrong={act.refusal?.of("agreementYears")}
				value={said.agreementYears}
				onChange={(agreementYears) =>
					setSaid({ ...said, agreementYears: agreementYears ?? 0 })
				}
			/>
			<Button type="submit" disabled={act.busy || said === years}>
				Keep the years
			</Button>
			<Refused of={act.refusal} />
		</form>
	);
}

function KeptOnes({ kept }: { kept: readonly KeptOfErasedDto[] }) {
	const act = useAct();
	if (kept.length === 0)
		return <p className="under">Nothing is kept of anybody who was erased.</p>;
	return (
		<section>
			<h3>Kept of people who were erased</h3>
			<Refused of={act.refusal} />
			<ul className="border-t border-hair">
				{kept.map((one) => (
					<li
						key={one.project}
						className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-hair py-1.5"
					>
						<Button asChild kind="word">
							<Link to={`/projects/${one.project}`}>Project {one.project}</Link>
						</Button>
						<span className="grid flex-1 basis-64">
							{one.what.map((what) => (
								<span key={what}>{what}</span>
							))}
						</span>
						{one.over && (
							<Button
								disabled={act.busy}
								onClick={() =>
									act.run(() =>
										answer(
											api.POST("/api/erased/{project}/papers", {
												params: { path: { project: one.project } },
											}),
										),
									)
								}
							>
								Erase what is over
								<span className="sr-only"> of project {one.project}</span>
							</Button>
						)}
					</li>
				))}
			</ul>
		</section>
	);
}
