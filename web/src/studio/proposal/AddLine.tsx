import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import type { OfferLineDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { emptyMore, newKey } from "./newParts";

/** A service from the price list, or one that stands nowhere yet. */
export function AddLine({
	project,
	gross,
	lines,
	onAdd,
}: {
	project: number;
	gross: boolean;
	lines: readonly OfferLineDto[];
	onAdd: (line: OfferLineDto) => void;
}) {
	const services = useQuery({
		queryKey: ["project", project, "services", gross],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/services", {
					params: { path: { id: project }, query: { gross } },
				}),
			),
	});
	const own = services.data?.filter((one) => !one.forAllKinds) ?? [];
	const shared = services.data?.filter((one) => one.forAllKinds) ?? [];
	return (
		<div className="flex flex-wrap items-end gap-2 pt-3">
			<div className="w-72 max-w-full">
				<Select
					label="Add a service"
					hidden
					value=""
					onChange={(e) => {
						const found = services.data?.find(
							(one) => String(one.id) === e.target.value,
						);
						if (found) onAdd({ ...found.line, key: newKey(lines) });
					}}
				>
					<option value="">Add from the price list</option>
					{own.map((one) => (
						<option key={one.id} value={one.id}>
							{one.name}
						</option>
					))}
					{shared.length > 0 && (
						<optgroup label="For every kind">
							{shared.map((one) => (
								<option key={one.id} value={one.id}>
									{one.name}
								</option>
							))}
						</optgroup>
					)}
				</Select>
			</div>
			<Button
				onClick={() =>
					onAdd({
						key: newKey(lines),
						role: "Included",
						group: null,
						title: "",
						detail: "",
						quantity: "1",
						unit: "",
						unitPrice: "0",
						tax: lines.at(-1)?.tax ?? services.data?.[0]?.line.tax ?? "0",
						suggested: false,
						more: emptyMore,
					})
				}
			>
				Something else
			</Button>
		</div>
	);
}
