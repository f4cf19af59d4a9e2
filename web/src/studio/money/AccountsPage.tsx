import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import { answer, api } from "../../api/client";
import type { AccountDto, AccountTransferDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { Shown } from "../../ui/Shown";
import { Cell, Head, Table } from "../../ui/Table";
import { Books } from "./Books";
import { EditAccount } from "./EditAccount";
import { EditTransfer } from "./EditTransfer";

type Opened =
	| { account: AccountDto | undefined }
	| { transfer: AccountTransferDto | undefined };

/** Where money lies: each account with its balance, what moved it, and transfers between them. */
export default function AccountsPage() {
	const accounts = useQuery({
		queryKey: ["over", "accounts"],
		queryFn: () => answer(api.GET("/api/accounts")),
	});
	const [opened, setOpened] = useState<Opened>();
	const [search, setSearch] = useSearchParams();
	useEffect(() => {
		document.title = "Accounts, Gesamt";
	}, []);
	const close = () => setOpened(undefined);
	return (
		<main className="px-5 pb-8 max-md:px-4">
			<Books />
			<div className="flex flex-wrap items-end gap-3 pt-4 pb-3">
				<h1 className="mr-3">Accounts</h1>
				<div className="ml-auto flex flex-wrap gap-2">
					{accounts.data && accounts.data.accounts.length > 1 && (
						<Button onClick={() => setOpened({ transfer: undefined })}>
							A transfer
						</Button>
					)}
					<Button kind="go" onClick={() => setOpened({ account: undefined })}>
						Add an account
					</Button>
				</div>
			</div>
			<Shown query={accounts}>
				{(data) => (
					<div className="grid items-start gap-x-8 gap-y-7 lg:grid-cols-[420px_minmax(0,1fr)]">
						<div className="grid gap-7">
							<section aria-label="Balances">
								<h2 className="rule pb-1.5">Balances</h2>
								<ul>
									{data.accounts.map((one) => (
										<li
											key={one.id}
											className="grid grid-cols-[minmax(0,1fr)_auto_minmax(5.5rem,auto)] items-baseline gap-x-3 border-b border-hair py-2.5"
										>
											<span className="min-w-0">
												<Button
													kind="line"
													data-walk
													aria-pressed={search.get("account") === `${one.id}`}
													onClick={() => setSearch({ account: `${one.id}` })}
												>
													<b className="font-[650]">{one.said.name}</b>
												</Button>
												<span className="under block">
													{one.since}
													{one.first &&
														`; what names no account in ${one.said.currency} lies here`}
												</span>
											</span>
											<Button
												kind="word"
												aria-label={`Change ${one.said.name}`}
												onClick={() => setOpened({ account: one })}
											>
												change
											</Button>
											<b className="num text-right font-[650]">{one.balance}</b>
										</li>
									))}
								</ul>
								{data.accounts.length === 0 && (
									<p className="py-3 text-soft">
										None yet. Add your bank account with its balance on a day:
										from then on it follows what you are paid and what you
										spend.
									</p>
								)}
								{data.unplaced && (
									<p className="under pt-2">
										{data.unplaced} moved in a currency you keep no account in.
									</p>
								)}
							</section>
							{data.transfers.length > 0 && (
								<section aria-label="Transfers">
									<h2 className="rule pb-1.5">Transfers</h2>
									<ul>
										{data.transfers.map((one) => (
											<li
												key={one.id}
												className="grid grid-cols-[minmax(0,1fr)_auto_minmax(5.5rem,auto)] items-baseline gap-x-3 border-b border-hair py-2"
											>
												<Button
													kind="line"
													data-walk
													className="min-w-0"
													onClick={() => setOpened({ transfer: one })}
												>
													{one.words}
												</Button>
												<span className="text-[13.5px] text-soft">
													{one.on}
												</span>
												<span className="num text-right">{one.amount}</span>
											</li>
										))}
									</ul>
								</section>
							)}
						</div>
						{data.accounts.length > 0 && (
							<Statement
								id={
									Number(search.get("account")) || (data.accounts[0]?.id ?? 0)
								}
								year={search.get("year") ?? ""}
								onYear={(account, year) =>
									setSearch({ account: `${account}`, year })
								}
							/>
						)}
						{opened && "account" in opened && (
							<EditAccount account={opened.account} onClose={close} />
						)}
						{opened && "transfer" in opened && (
							<EditTransfer
								transfer={opened.transfer}
								accounts={data.accounts}
								onClose={close}
							/>
						)}
					</div>
				)}
			</Shown>
		</main>
	);
}

/** One account, entry by entry, with the balance after each. */
function Statement({
	id,
	year,
	onYear,
}: {
	id: number;
	year: string;
	onYear: (account: number, year: string) => void;
}) {
	const statement = useQuery({
		queryKey: ["over", "account", id, year],
		queryFn: () =>
			answer(
				api.GET("/api/accounts/{id}", {
					params: { path: { id }, query: { year: year || undefined } },
				}),
			),
		placeholderData: (before) => before,
	});
	return (
		<Shown query={statement}>
			{(data) => {
				const shown = Number(data.from.slice(0, 4));
				return (
					<section aria-label={data.name}>
						<div className="flex flex-wrap items-baseline gap-3 pb-1.5">
							<h2>{data.name}</h2>
							<span className="text-soft">
								<span className="num">{data.before}</span> before,{" "}
								<span className="num">{data.after}</span> after
							</span>
							<span className="ml-auto print:hidden">
								<Select
									label="Year"
									hidden
									value={shown}
									onChange={(e) => onYear(id, e.target.value)}
								>
									{data.years.map((one) => (
										<option key={one}>{one}</option>
									))}
								</Select>
							</span>
						</div>
						<Table
							caption={`${data.name} in ${shown}`}
							head={
								<tr>
									<Head>day</Head>
									<Head>what</Head>
									<Head end>amount</Head>
									<Head end>balance</Head>
								</tr>
							}
						>
							<tbody>
								{data.rows.map((row) => (
									<tr key={row.key}>
										<Cell className="num whitespace-nowrap">{row.on}</Cell>
										<Cell>
											{row.title}
											<span className="under block">{row.words}</span>
										</Cell>
										<Cell end className="num">
											{row.amount}
										</Cell>
										<Cell end className="num">
											{row.balance}
										</Cell>
									</tr>
								))}
							</tbody>
						</Table>
						{data.rows.length === 0 && (
							<p className="py-3 text-soft">Nothing moved on it in {shown}.</p>
						)}
					</section>
				);
			}}
		</Shown>
	);
}
