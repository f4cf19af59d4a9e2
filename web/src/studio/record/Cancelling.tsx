import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Tick } from "../../ui/Tick";
import type { Part } from "./said";

/** What the terms come to, before anything is done; nothing where the kind has none. */
export function Cancelling({
	record,
	said,
	wrong,
	onChange,
}: Part & { record: RecordDto }) {
	const terms = useQuery({
		queryKey: ["over", "cancelling", record.id, said.on],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/cancelling", {
					params: {
						path: { id: record.id },
						query: { on: said.on || undefined },
					},
				}),
			),
		retry: false,
		placeholderData: (before) => before,
	});
	if (!terms.data?.lines.length) return null;
	return (
		<Tick
			label="Settle the money as the terms say"
			under={terms.data.lines.map((line) => (
				<span key={line} className="block">
					{line}
				</span>
			))}
			wrong={wrong("terms")}
			checked={said.terms}
			onChange={(checked) => onChange({ terms: checked })}
		/>
	);
}
