import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import { Select } from "../../ui/Select";
import type { View } from "./useView";

const states = [
	["InIt", "who is in it"],
	["Finished", "who finished it"],
	["TakenOut", "who was taken out"],
] as const;

/** Who is in a routine, finished it or was taken out of it. */
export function InRoutine({ view }: { view: View }) {
	const routine = view.search.get("routine") ?? "";
	const routines = useQuery({
		queryKey: ["over", "register-routines"],
		queryFn: () => answer(api.GET("/api/register/routines")),
	});
	return (
		<>
			<Select
				label="Routine"
				value={routine}
				onChange={(e) => view.set({ routine: e.target.value, run: "" })}
			>
				<option value="">any or none</option>
				{routines.data?.map((name) => (
					<option key={name}>{name}</option>
				))}
			</Select>
			{routine && (
				<Select
					label="Of it"
					value={view.search.get("run") ?? ""}
					onChange={(e) => view.set({ run: e.target.value })}
				>
					<option value="">all who ever were in it</option>
					{states.map(([state, words]) => (
						<option key={state} value={state}>
							{words}
						</option>
					))}
				</Select>
			)}
		</>
	);
}
