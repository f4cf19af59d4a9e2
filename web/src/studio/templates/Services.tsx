import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, upload } from "../../api/client";
import type {
	KindPageDto,
	PricesReadDto,
	ServiceDto,
	SharedServicesDto,
} from "../../api/schema";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { tableFiles } from "../../ui/files/tables";
import { Refused } from "../../ui/Refused";
import { moved, Sortable, SortableItem } from "../../ui/Sortable";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";
import { Section } from "./Section";
import { emptyService, Service } from "./Service";

type Rows = readonly (ServiceDto & { key: string })[];

/** The price list of a kind. */
export function Services({ kind }: { kind: KindPageDto }) {
	return (
		<Section
			id="services"
			title="Services"
			under={`${offered(kind.services)}, offered for this kind`}
			open
		>
			<List
				key={kind.edition}
				services={kind.services}
				kind={kind.id}
				save={(services) =>
					api.PUT("/api/kinds/{id}/services", {
						params: { path: { id: kind.id } },
						body: { edition: kind.edition, services },
					})
				}
			/>
		</Section>
	);
}

/** The services that are offered whatever the kind. */
export function SharedServices() {
	const shared = useQuery({
		queryKey: ["services"],
		queryFn: () => answer(api.GET("/api/services")),
	});
	if (!shared.data) return null;
	return (
		<>
			<h2 className="sr-only">Services</h2>
			<Shared data={shared.data} />
		</>
	);
}

function Shared({ data }: { data: SharedServicesDto }) {
	return (
		<Section
			id="shared-services"
			title="Services for every kind"
			under={data.services.length === 0 ? "none yet" : offered(data.services)}
			open
		>
			<List
				key={data.edition}
				services={data.services}
				save={(services) =>
					api.PUT("/api/services", {
						body: { edition: data.edition, services },
					})
				}
			/>
		</Section>
	);
}

const offered = (services: readonly ServiceDto[]) => {
	const away = services.filter((one) => one.more?.putAway).length;
	return `${services.length - away}${away > 0 ? `, ${away} put away` : ""}`;
};

function List({
	services,
	kind,
	save,
}: {
	services: readonly ServiceDto[];
	/** None for those of every kind. */
	kind?: number;
	save: (services: ServiceDto[]) => Promise<{ data?: unknown }>;
}) {
	const first: Rows = services.map((one) => ({ ...one, key: `s${one.id}` }));
	const [rows, setRows] = useState(first);
	const [changed, setChanged] = useState(false);
	const [open, setOpen] = useState<string>();
	const [told, setTold] = useState("");
	const act = useAct();
	const undo = useUndo();
	const put = (next: Rows) => {
		setRows(next);
		setChanged(true);
	};
	const query = kind === undefined ? "" : `?kind=${kind}`;
	function add(like: ServiceDto) {
		const key = `n${rows.length}-${Date.now()}`;
		put([...rows, { ...like, id: 0, key }]);
		setOpen(key);
	}
	return (
		<div data-sends>
			<Sortable
				label="Services"
				keys={rows.map((one) => one.key)}
				onMove={(from, to) => put(moved(rows, from, to))}
			>
				{rows.map((row, i) => (
					<SortableItem
						key={row.key}
						id={row.key}
						name={row.title || "the new service"}
						className="group border-b border-hair bg-sheet"
					>
						{(handle) => (
							<Service
								service={row}
								handle={handle}
								open={open === row.key}
								wrong={(field) => act.refusal?.of(`services[${i}].${field}`)}
								onOpen={(now) => setOpen(now ? row.key : undefined)}
								onChange={(part) =>
									put(
										rows.map((one) =>
											one.key === row.key ? { ...one, ...part } : one,
										),
									)
								}
								onCopy={() => add({ ...row, title: `${row.title}, copy` })}
								onTakeOut={() => {
									const before = rows;
									put(rows.filter((one) => one.key !== row.key));
									undo({
										words: `${row.title || "The service"} is taken out.`,
										undo: async () => put(before),
									});
								}}
							/>
						)}
					</SortableItem>
				))}
			</Sortable>
			{rows.length === 0 && <p className="pb-2 text-soft">No service yet.</p>}
			<Refused of={act.refusal} />
			{told && (
				<p role="status" className="pt-2">
					{told}
				</p>
			)}
			<div className="flex flex-wrap gap-2 pt-3">
				<Button onClick={() => add(emptyService)}>Add a service</Button>
				<Button
					kind="go"
					disabled={act.busy || !changed}
					onClick={() =>
						act.run(() => answer(save(rows.map(({ key: _, ...one }) => one))))
					}
				>
					Keep the services
				</Button>
				<span className="ml-auto flex gap-2">
					<Button asChild>
						<a href={`/api/services.csv${query}`} download>
							As a table (CSV)
						</a>
					</Button>
					<FilePick
						accept={tableFiles}
						disabled={changed || act.busy}
						onFiles={([file]) =>
							act.run(async () => {
								const read = await upload<PricesReadDto>(
									`/api/services/table${query}`,
									file!,
								);
								setTold(
									`${read.added} added, ${read.changed} changed from the table.`,
								);
							})
						}
					>
						From a table
					</FilePick>
				</span>
			</div>
		</div>
	);
}
