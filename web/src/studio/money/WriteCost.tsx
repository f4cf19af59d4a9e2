import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useEffect, useState } from "react";
import { Link } from "react-router";
import { answer, api, upload } from "../../api/client";
import type { BookUsualDto, OpenedCostDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { FilePick } from "../../ui/FilePick";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { Window } from "../../ui/Window";
import { FileWith } from "../FileWith";
import { useAct } from "../useAct";
import { useTakeOut } from "../useTakeOut";
import { CostFields, type Said } from "./CostFields";
import { useUsual } from "./useUsual";

/** Writes down a cost, of a project or of the studio as a whole; or opens one that was. */
export function WriteCost({
	id,
	receipt,
	begins,
	onKept,
	onClose,
}: {
	/** The one that is opened; none for a new one. */
	id?: number;
	/** A receipt that was dropped. */
	receipt?: File;
	/** What is known of a new one already. */
	begins?: Begins;
	onKept?: (id: number) => void;
	onClose: () => void;
}) {
	const usual = useUsual();
	const cost = useQuery({
		queryKey: ["over", "cost", id],
		queryFn: () =>
			answer(api.GET("/api/costs/{id}", { params: { path: { id: id ?? 0 } } })),
		enabled: id !== undefined,
	});
	return (
		<Window title="A cost" open onClose={onClose}>
			{id === undefined ? (
				usual && (
					<Form
						usual={usual}
						dropped={receipt}
						begins={begins}
						onKept={onKept}
						onClose={onClose}
					/>
				)
			) : (
				<Shown query={cost}>
					{(opened) =>
						opened.fixed ? (
							<Fixed cost={opened} />
						) : (
							<Form usual={usual} cost={opened} onClose={onClose} />
						)
					}
				</Shown>
			)}
		</Window>
	);
}

type Begins = Partial<Pick<Said, "what" | "who" | "amount">> & { on?: string };

function Fixed({ cost }: { cost: OpenedCostDto }) {
	return (
		<p>
			{cost.said.what}, of{" "}
			<Link to={`/projects/${cost.project}`}>{cost.projectTitle}</Link>.{" "}
			{cost.fixed}
		</p>
	);
}

function Form({
	usual,
	cost,
	dropped,
	begins,
	onKept,
	onClose,
}: {
	usual?: BookUsualDto;
	cost?: OpenedCostDto;
	dropped?: File;
	begins?: Begins;
	onKept?: (id: number) => void;
	onClose: () => void;
}) {
	const [said, setSaid] = useState<Said>({
		what: cost?.said.what ?? begins?.what ?? "",
		who: cost?.said.payee ?? begins?.who ?? "",
		category: cost?.said.category ?? "",
		amount: cost?.said.amount ?? begins?.amount ?? "",
		tax: cost?.said.tax ?? usual?.tax ?? "",
		account: cost?.said.account ?? null,
	});
	const [on, setOn] = useState(cost?.said.on ?? begins?.on ?? "");
	const [project, setProject] = useState(
		cost?.project ? { id: cost.project, title: cost.projectTitle } : undefined,
	);
	const [receipt, setReceipt] = useState(dropped);
	// once it is kept a receipt that was refused is tried again without keeping it twice
	const [kept, setKept] = useState(cost?.id);
	const act = useAct();
	const takeOut = useTakeOut(act, onClose);
	const preview = usePreview(receipt);
	async function keep(event: FormEvent) {
		event.preventDefault();
		const { who, ...rest } = said;
		const body = {
			...rest,
			payee: who,
			on: on || null,
			chargeOn: cost?.said.chargeOn ?? false,
		};
		let id = kept;
		const done = await act.run(async () => {
			if (id)
				await answer(
					api.PUT("/api/costs/{id}", { params: { path: { id } }, body }),
				);
			else
				id = (
					await answer(
						api.POST("/api/costs", {
							params: { query: { project: project?.id } },
							body,
						}),
					)
				).id;
			setKept(id);
			if (receipt)
				await upload(
					`/api/costs/${id}/receipt?${new URLSearchParams({ name: receipt.name })}`,
					receipt,
				);
		});
		if (!done) return;
		if (id) onKept?.(id);
		onClose();
	}
	return (
		<form onSubmit={keep} className="grid gap-3">
			{preview && (
				<img
					src={preview}
					alt={`The receipt ${receipt?.name}`}
					className="max-h-48 max-w-full border border-hair object-contain"
				/>
			)}
			<CostFields
				said={said}
				who={{ label: "Paid to", field: "payee" }}
				usual={usual}
				refusal={act.refusal}
				onChange={setSaid}
			/>
			<DateField
				label="Day"
				back
				hint="left empty, today"
				value={on}
				wrong={act.refusal?.of("on")}
				onChange={setOn}
			/>
			<div className="flex flex-wrap items-center gap-x-3 gap-y-1">
				{project ? (
					<span>
						Of <b className="font-[650]">{project.title}</b>
					</span>
				) : (
					<span className="text-soft">Of the studio as a whole</span>
				)}
				{!cost &&
					(project ? (
						<Button kind="word" onClick={() => setProject(undefined)}>
							of no project
						</Button>
					) : (
						<FileWith
							label="Of a project"
							onChoose={(id, title) => setProject({ id, title })}
						/>
					))}
			</div>
			<div className="flex flex-wrap items-center gap-3">
				<FilePick
					accept="image/*,application/pdf"
					onFiles={([file]) => setReceipt(file)}
				>
					{receipt || cost?.receipt ? "Another receipt" : "Add its receipt"}
				</FilePick>
				<span className="min-w-0 text-soft break-words">
					{receipt?.name ??
						(cost?.receipt && (
							<a href={`/api/costs/${cost.id}/receipt`}>{cost.receipt}</a>
						))}
				</span>
			</div>
			<Refused of={act.refusal} />
			<div className="flex gap-2">
				<Button kind="go" type="submit" disabled={act.busy}>
					{cost ? "Keep the change" : "Keep the cost"}
				</Button>
				{cost && (
					<Button
						className="ml-auto"
						disabled={act.busy}
						onClick={() =>
							takeOut(said.what, (removed) =>
								answer(
									api.POST("/api/costs/{id}/removed", {
										params: { path: { id: cost.id } },
										body: { removed },
									}),
								),
							)
						}
					>
						Take it out
					</Button>
				)}
			</div>
		</form>
	);
}

/** A picture of the receipt to type from, while the window is open. */
function usePreview(file: File | undefined) {
	const [url, setUrl] = useState<string>();
	useEffect(() => {
		setUrl(undefined);
		if (!file?.type.startsWith("image/")) return;
		const reader = new FileReader();
		reader.onload = () => setUrl(String(reader.result));
		reader.readAsDataURL(file);
		return () => reader.abort();
	}, [file]);
	return url;
}
