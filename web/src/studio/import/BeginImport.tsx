import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, api, upload } from "../../api/client";
import type { Refusal } from "../../api/refusal";
import type { ImportIdDto } from "../../api/schema";
import { FilePick } from "../../ui/FilePick";
import { tableFiles } from "../../ui/files/tables";
import { Refused } from "../../ui/Refused";
import { states } from "./PastImport";

export function Begin() {
	const [refusal, setRefusal] = useState<Refusal>();
	const navigate = useNavigate();
	const before = useQuery({
		queryKey: ["imports"],
		queryFn: () => answer(api.GET("/api/imports")),
	});
	async function take(file?: File) {
		if (!file) return;
		try {
			const made = await upload<ImportIdDto>(
				`/api/imports?name=${encodeURIComponent(file.name)}`,
				file,
			);
			navigate(`/import/${made.id}`);
		} catch (error) {
			setRefusal(error as Refusal);
		}
	}
	return (
		<>
			<FilePick
				kind="go"
				accept={tableFiles}
				name="Choose a table"
				onFiles={([file]) => take(file)}
			>
				Choose a table
			</FilePick>
			<Refused of={refusal} />
			<section aria-label="Taken over before" className="pt-6">
				<h2 className="rule pb-1.5">Taken over before</h2>
				{before.data?.map((one) => (
					<Link
						key={one.id}
						to={`/import/${one.id}`}
						className="flex gap-3 border-b border-hair py-1.5"
					>
						<b className="font-[650]">{one.name}</b>
						<span className="text-soft">{states[one.state](one.made)}</span>
						<span className="ml-auto text-soft">{one.at}</span>
					</Link>
				))}
				{before.data?.length === 0 && (
					<p className="py-3 text-soft">No table yet.</p>
				)}
			</section>
		</>
	);
}
