import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import type { LineRole, OfferLineDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { AsEarlier } from "./AsEarlier";

const roles: Record<LineRole, string> = {
	Included: "Included",
	OneOf: "A choice of one",
	Extra: "To add",
};

/** The services of a proposal, taken from the price list and changed freely. */
export function Lines({
	project,
	lines,
	onChange,
}: {
	project: number;
	lines: OfferLineDto[];
	onChange: (lines: OfferLineDto[]) => void;
}) {
	const services = useQuery({
		queryKey: ["project", project, "services"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/services", {
					params: { path: { id: project } },
				}),
			),
	});
	function add(id: string) {
		const found = services.data?.find((one) => String(one.service.id) === id);
		if (!found) return;
		const { service } = found;
		const line: OfferLineDto = {
			key: newKey(lines),
			role: "Included",
			group: null,
			title: service.title,
			detail: service.detail,
			quantity: found.quantity,
			unit: service.unit,
			unitPrice: service.unitPrice,
			tax: service.tax,
			suggested: false,
		};
		onChange([...lines, line]);
	}
	const set = (key: string, part: Partial<OfferLineDto>) =>
		onChange(
			lines.map((line) => (line.key === key ? { ...line, ...part } : line)),
		);
	return (
		<section>
			<div className="rule flex items-end gap-3 pb-2">
				<h2>Services</h2>
				<div className="ml-auto w-60">
					<Select
						label="Add a service"
						hidden
						value=""
						onChange={(e) => add(e.target.value)}
					>
						<option value="">Add from the price list</option>
						{services.data?.map(({ service }) => (
							<option key={service.id} value={service.id}>
								{service.title}, {service.unitPrice}
								{service.unit && ` / ${service.unit}`}
							</option>
						))}
					</Select>
				</div>
			</div>
			{lines.length === 0 && (
				<>
					<p className="py-3 text-soft">
						No service yet. Add what is included, what the client may choose
						between, and what can be added.
					</p>
					<AsEarlier project={project} onLines={onChange} />
				</>
			)}
			{lines.map((line) => (
				<fieldset
					key={line.key}
					aria-label={line.title}
					className="grid grid-cols-2 items-end gap-2 border-b border-hair py-3 md:grid-cols-[150px_1fr_80px_90px_100px_70px_auto]"
				>
					<Select
						label="How"
						value={line.role}
						onChange={(e) => {
							const role = e.target.value as LineRole;
							set(line.key, {
								role,
								group: role === "OneOf" ? (line.group ?? "choice") : null,
							});
						}}
					>
						{Object.entries(roles).map(([role, words]) => (
							<option key={role} value={role}>
								{words}
							</option>
						))}
					</Select>
					<TextField
						label="Service"
						value={line.title}
						onChange={(e) => set(line.key, { title: e.target.value })}
					/>
					<TextField
						label="Quantity"
						inputMode="decimal"
						className="num text-right"
						value={line.quantity}
						onChange={(e) => set(line.key, { quantity: e.target.value })}
					/>
					<TextField
						label="Unit"
						value={line.unit}
						onChange={(e) => set(line.key, { unit: e.target.value })}
					/>
					<TextField
						label="Unit price"
						inputMode="decimal"
						className="num text-right"
						value={line.unitPrice}
						onChange={(e) => set(line.key, { unitPrice: e.target.value })}
					/>
					<TextField
						label="Tax %"
						inputMode="decimal"
						className="num text-right"
						value={line.tax}
						onChange={(e) => set(line.key, { tax: e.target.value })}
					/>
					<Button
						aria-label={`Leave out ${line.title}`}
						onClick={() =>
							onChange(lines.filter((one) => one.key !== line.key))
						}
					>
						Leave out
					</Button>
					{line.role === "OneOf" && (
						<div className="col-span-2 md:col-start-2">
							<TextField
								label="Chosen between (same word for each)"
								value={line.group ?? ""}
								onChange={(e) => set(line.key, { group: e.target.value })}
							/>
						</div>
					)}
				</fieldset>
			))}
		</section>
	);
}

function newKey(lines: OfferLineDto[]): string {
	let next = lines.length + 1;
	while (lines.some((line) => line.key === `l${next}`)) next++;
	return `l${next}`;
}
