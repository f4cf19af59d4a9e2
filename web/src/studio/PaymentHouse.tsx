import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { Shown } from "../ui/Shown";
import { useAct } from "./useAct";

/** The stand-in provider as its own people see it: what was paid, and what goes wrong in the world. */
export function PaymentHouse() {
	const payments = useQuery({
		queryKey: ["over", "payment-house"],
		queryFn: () => answer(api.GET("/api/payment-house")),
	});
	const act = useAct();
	return (
		<section aria-label="Payments" className="panel self-start p-5">
			<h2>Payments</h2>
			<p className="text-soft">
				The stand-in provider: what clients paid by card or from an account.
			</p>
			<Refused of={act.refusal} />
			<Shown query={payments}>
				{(list) =>
					list.length === 0 ? (
						<p className="py-3 text-soft">
							Nothing yet. A client pays on their page.
						</p>
					) : (
						<ul>
							{list.map((one) => (
								<li
									key={one.session}
									className="flex flex-wrap items-center gap-2 border-b border-hair py-2"
								>
									<span className="min-w-0 flex-1">
										{one.what}
										<span className="under block">
											by {one.means}, {one.state}
										</span>
									</span>
									<b className="num">{one.amount}</b>
									<Button
										size="small"
										disabled={act.busy}
										onClick={() =>
											act.run(() =>
												answer(
													api.POST("/api/payment-house/{session}/notice", {
														params: { path: { session: one.session } },
													}),
												),
											)
										}
									>
										Send its notice again
										<span className="sr-only">: {one.what}</span>
									</Button>
									{one.canComeBack && (
										<Button
											size="small"
											disabled={act.busy}
											onClick={() =>
												act.run(() =>
													answer(
														api.POST("/api/payment-house/{session}/take-back", {
															params: { path: { session: one.session } },
														}),
													),
												)
											}
										>
											The bank takes it back
											<span className="sr-only">: {one.what}</span>
										</Button>
									)}
								</li>
							))}
						</ul>
					)
				}
			</Shown>
		</section>
	);
}
