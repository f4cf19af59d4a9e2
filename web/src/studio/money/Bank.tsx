import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, api, upload } from "../../api/client";
import type { StatementColumnsDto, StatementTakenDto } from "../../api/schema";
import { FilePick } from "../../ui/FilePick";
import { tableFiles } from "../../ui/files/tables";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { useAct } from "../useAct";
import { BankDone, BankFiles } from "./BankDone";
import { BankLine } from "./BankLine";
import { BankOut } from "./BankOut";
import { Books } from "./Books";
import { MatchStatement } from "./MatchStatement";

/** What a file brought, in one sentence. */
function told({ lines, new: fresh, booked }: StatementTakenDto): string {
	const read = lines === 1 ? "1 line read" : `${lines} lines read`;
	if (fresh === 0) return `${read}: every one was known already.`;
	const known = lines - fresh;
	return `${read}${known > 0 ? `, ${known} of them known already` : ""}; ${booked} booked by ${booked === 1 ? "itself" : "themselves"}.`;
}

/** Statements of the bank: taken in, each line booked by one key. */
export default function Bank() {
	const bank = useQuery({
		queryKey: ["over", "bank"],
		queryFn: () => answer(api.GET("/api/bank")),
	});
	const act = useAct();
	const [matching, setMatching] = useState<StatementColumnsDto>();
	const [words, setWords] = useState("");
	useEffect(() => {
		document.title = "Bank, Gesamt";
	}, []);
	const took = (taken: StatementTakenDto) => {
		setMatching(taken.columns ?? undefined);
		setWords(taken.columns ? "" : told(taken));
	};
	const take = (file?: File) =>
		file &&
		act.run(async () =>
			took(
				await upload<StatementTakenDto>(
					`/api/bank/statements?name=${encodeURIComponent(file.name)}`,
					file,
				),
			),
		);
	return (
		<main
			className="px-5 pb-8"
			onDragOver={(e) => e.preventDefault()}
			onDrop={(e) => {
				e.preventDefault();
				take(e.dataTransfer.files[0]);
			}}
		>
			<Books />
			<div className="flex flex-wrap items-end gap-3 pt-4 pb-3">
				<div className="min-w-0 flex-1 max-md:basis-full">
					<h1>Bank</h1>
					<p className="text-soft">
						Give a statement of your account, as camt.053 or as a table (CSV).
						The same file twice books nothing twice.
					</p>
				</div>
				<FilePick
					kind="go"
					accept={`.xml,.camt,text/xml,application/xml,${tableFiles}`}
					name="Take in a statement"
					disabled={act.busy}
					onFiles={([file]) => take(file)}
				>
					Take in a statement
				</FilePick>
			</div>
			<Refused of={act.refusal} />
			<p aria-live="polite" className={words && "pb-3 font-[650]"}>
				{words}
			</p>
			<Shown query={bank}>
				{(data) => (
					<div className="grid items-start gap-x-8 gap-y-7 lg:grid-cols-[minmax(0,1fr)_380px]">
						<section aria-label="To be matched">
							<h2 className="rule pb-1.5">
								To be matched{" "}
								<span className="font-normal text-soft">
									{data.open.length + data.more}
								</span>
							</h2>
							{data.open.map((line) => (
								<BankLine key={line.id} line={line} />
							))}
							{data.open.length === 0 && (
								<p className="py-3 text-soft">
									{data.files.length === 0
										? "No statement was taken in yet. Drop one anywhere on this page."
										: "Nothing: every line of money that came in is booked or set aside."}
								</p>
							)}
							{data.more > 0 && (
								<p className="under pt-2">and {data.more} later ones</p>
							)}
							<BankOut />
						</section>
						<div className="grid gap-7">
							<BankDone lines={data.done} />
							<BankFiles files={data.files} />
						</div>
					</div>
				)}
			</Shown>
			{matching && (
				<MatchStatement
					table={matching}
					onTaken={took}
					onClose={() => setMatching(undefined)}
				/>
			)}
		</main>
	);
}
