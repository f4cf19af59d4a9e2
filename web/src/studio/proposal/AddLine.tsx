import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import type { OfferLineDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Menu } from "../../ui/Menu";
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
	return (
		<div className="flex flex-wrap items-end gap-2 pt-3">
			{services.data && services.data.length > 0 && (
				<Menu
					words="Add from the price list"
					items={services.data.map((one) => ({
						key: one.id,
						words: one.name,
						group: one.forAllKinds ? "For every kind" : undefined,
						act: () => onAdd({ ...one.line, key: newKey(lines) }),
					}))}
				/>
			)}
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
