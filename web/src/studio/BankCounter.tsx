import { Link } from "react-router";
import type { StatementForm } from "../api/schema";
import { Button } from "../ui/Button";

const forms: Record<NonNullable<StatementForm>, string> = {
	Camt08: "as camt.053, version 08",
	Camt02: "as camt.053, version 02",
	Table: "as a table (CSV)",
};

/** The stand-in for the studio’s bank: clients pay there what is open, and it writes today’s statement. */
export function BankCounter() {
	return (
		<section aria-label="Bank" className="panel self-start p-5">
			<h2>Bank</h2>
			<p className="text-soft">
				The stand-in bank writes today’s statement: what is open is paid in it,
				as clients do. Take it in under{" "}
				<Button asChild kind="word">
					<Link to="/money/bank">Money, Bank</Link>
				</Button>
				.
			</p>
			<div className="flex flex-wrap gap-2 pt-3">
				{Object.entries(forms).map(([form, words]) => (
					<Button asChild size="small" key={form}>
						<a href={`/api/stand-in-bank/statement?form=${form}`} download>
							Today’s statement {words}
						</a>
					</Button>
				))}
			</div>
		</section>
	);
}
