import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Popover } from "../../ui/Popover";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";
import type { View } from "./useView";

/** Views kept under a name, and this one to keep. */
export function SavedViews({ view }: { view: View }) {
	const views = useQuery({
		queryKey: ["over", "register-views"],
		queryFn: () => answer(api.GET("/api/register/views")),
	});
	const [name, setName] = useState("");
	const act = useAct();
	async function keep(event: FormEvent) {
		event.preventDefault();
		const query = view.search.toString();
		if (
			await act.run(() =>
				answer(api.POST("/api/register/views", { body: { name, query } })),
			)
		)
			setName("");
	}
	return (
		<Popover words={`Views, ${views.data?.length ?? 0}`}>
			<div className="grid w-64 gap-2">
				{views.data?.map((one) => (
					<div key={one.id} className="flex gap-3">
						<Button
							kind="word"
							className="text-left"
							onClick={() => view.show(one.query)}
						>
							{one.name}
						</Button>
						<Button
							kind="line"
							className="ml-auto text-small text-soft"
							onClick={() =>
								act.run(() =>
									answer(
										api.POST("/api/register/views/{id}/forget", {
											params: { path: { id: one.id } },
										}),
									),
								)
							}
						>
							forget<span className="sr-only"> {one.name}</span>
						</Button>
					</div>
				))}
				<form onSubmit={keep} className="grid gap-2 border-t border-hair pt-2">
					<TextField
						label="Keep this view as"
						value={name}
						wrong={act.refusal?.of("name")}
						onChange={(e) => setName(e.target.value)}
					/>
					<Refused of={act.refusal} />
					<Button type="submit" disabled={act.busy}>
						Keep the view
					</Button>
				</form>
			</div>
		</Popover>
	);
}
