import { CountField } from "../../ui/CountField";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import type { KindPart } from "./KindSettings";

/** What a kind and its date are called, and how its inquiries are received. */
export function KindNames({ said, wrong, set }: KindPart) {
	const { inquiry } = said;
	return (
		<div className="grid gap-3 md:grid-cols-2">
			<TextField
				label="Name of the kind"
				value={said.name}
				wrong={wrong("name")}
				onChange={(e) => set({ name: e.target.value })}
			/>
			<TextField
				label="The date that matters is called"
				hint="such as opening day; left empty for work without one"
				value={said.mainDate}
				wrong={wrong("mainDate")}
				onChange={(e) => set({ mainDate: e.target.value })}
			/>
			<Select
				label="Follow-ups of an inquiry begin"
				value={inquiry.followUps}
				onChange={(e) =>
					set({
						inquiry: {
							...inquiry,
							followUps: e.target.value as typeof inquiry.followUps,
						},
					})
				}
			>
				<option value="AtOnce">at once</option>
				<option value="WhenRead">when I have read the answers</option>
			</Select>
			<CountField
				label="An answer is promised within"
				hint="business days"
				min={1}
				value={inquiry.replyWithin}
				wrong={wrong("inquiry.replyWithin")}
				onChange={(count) =>
					set({ inquiry: { ...inquiry, replyWithin: count ?? 0 } })
				}
			/>
		</div>
	);
}
