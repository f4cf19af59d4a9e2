import { useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import type { RecordDto, SheetMoneyDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";

/** Invoices that come again, and what they are charged to. */
export function Recurring({
	record,
	money,
}: {
	record: RecordDto;
	money: SheetMoneyDto;
}) {
	const act = useAct();
	const navigate = useNavigate();
	const of = (recurring: number) => ({
		params: { path: { id: record.id, recurring } },
	});
	return (
		<>
			{money.recurring.map((one) => (
				<div key={one.id} className="pt-2 text-[14.3px]">
					<p>
						{one.words}
						<span className="under block">next {one.next}</span>
					</p>
					<p className="flex gap-3">
						<Button
							kind="word"
							disabled={act.busy}
							onClick={async () => {
								const opened = await act.run(() =>
									answer(
										api.POST(
											"/api/projects/{id}/recurring/{recurring}/open",
											of(one.id),
										),
									),
								);
								if (opened) navigate(`/projects/${record.id}/bill`);
							}}
						>
							Change it
						</Button>
						<Button
							kind="word"
							disabled={act.busy}
							onClick={() =>
								act.run(() =>
									answer(
										api.POST(
											"/api/projects/{id}/recurring/{recurring}/stop",
											of(one.id),
										),
									),
								)
							}
						>
							Stop it
						</Button>
					</p>
				</div>
			))}
			{money.kept && (
				<p className="pt-2 text-[14.3px]">
					Charged on the day each is due: {money.kept.words}
					<span className="under block">
						agreed to on {money.kept.since}{" "}
						<Button
							kind="word"
							disabled={act.busy}
							onClick={() =>
								act.run(() =>
									answer(
										api.POST("/api/projects/{id}/kept-means/take-back", {
											params: { path: { id: record.id } },
										}),
									),
								)
							}
						>
							Charge it no more
						</Button>
					</span>
				</p>
			)}
			<Refused of={act.refusal} />
		</>
	);
}
