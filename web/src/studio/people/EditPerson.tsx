import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import type {
	BuyerSort,
	PersonDetailsDto,
	PersonSort,
	ReachBy,
} from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

export const nobody: PersonDetailsDto = {
	sort: "Colleague",
	name: "",
	greeted: null,
	organisation: null,
	mail: null,
	phone: null,
	profile: null,
	prefers: null,
	address: null,
	taxNumber: null,
	notes: "",
	edition: 0,
	country: null,
	buyer: "Private",
};

type Text = Exclude<
	keyof PersonDetailsDto,
	"sort" | "prefers" | "edition" | "buyer"
>;

const fields: { key: Text; label: string; hint?: string }[] = [
	{ key: "name", label: "Name" },
	{
		key: "greeted",
		label: "Greeted as",
		hint: "in letters, where it is not the first name",
	},
	{ key: "organisation", label: "Organisation" },
	{ key: "mail", label: "Mail" },
	{ key: "phone", label: "Phone" },
	{ key: "profile", label: "Link to a profile" },
	{ key: "address", label: "Postal address" },
	{
		key: "country",
		label: "Country",
		hint: "two letters, such as AT; left empty, your own",
	},
	{ key: "taxNumber", label: "Tax number" },
];

/** Fields of a person, as they stand in every window that asks for one. */
export function PersonFields({
	person,
	wrong,
	onChange,
}: {
	person: PersonDetailsDto;
	wrong: (field: string) => string | undefined;
	onChange: (person: PersonDetailsDto) => void;
}) {
	return (
		<div className="grid gap-3 md:grid-cols-2">
			<Select
				label="Is a"
				value={person.sort}
				onChange={(e) =>
					onChange({ ...person, sort: e.target.value as PersonSort })
				}
			>
				<option value="Client">client</option>
				<option value="Colleague">colleague</option>
				<option value="Supplier">supplier</option>
				<option value="Venue">venue</option>
				<option value="Partner">partner</option>
			</Select>
			{fields.map(({ key, label, hint }) => (
				<TextField
					key={key}
					label={label}
					hint={hint}
					value={person[key] ?? ""}
					wrong={wrong(key)}
					onChange={(e) =>
						onChange({
							...person,
							[key]: key === "name" ? e.target.value : e.target.value || null,
						})
					}
				/>
			))}
			<Select
				label="Buys as"
				value={person.buyer}
				onChange={(e) =>
					onChange({ ...person, buyer: e.target.value as BuyerSort })
				}
			>
				<option value="Private">a private person</option>
				<option value="Business">a business</option>
				<option value="PublicBody">a public body</option>
			</Select>
			<Select
				label="Prefers"
				value={person.prefers ?? ""}
				onChange={(e) =>
					onChange({
						...person,
						prefers: (e.target.value || null) as ReachBy | null,
					})
				}
			>
				<option value="">no matter</option>
				<option value="Mail">mail</option>
				<option value="Phone">phone</option>
				<option value="Profile">profile</option>
			</Select>
			<div className="md:col-span-2">
				<TextArea
					label="Notes, yours alone"
					rows={3}
					value={person.notes}
					wrong={wrong("notes")}
					onChange={(e) => onChange({ ...person, notes: e.target.value })}
				/>
			</div>
		</div>
	);
}

/** Adds somebody, or changes what is kept of them. */
export function EditPerson({
	id,
	details,
	onClose,
}: {
	id?: number;
	details: PersonDetailsDto;
	onClose: () => void;
}) {
	const [person, setPerson] = useState(details);
	const act = useAct();
	const navigate = useNavigate();
	async function keep(event: FormEvent) {
		event.preventDefault();
		await act.run(async () => {
			if (id)
				await answer(
					api.PUT("/api/people/{id}", {
						params: { path: { id } },
						body: person,
					}),
				);
			else
				navigate(
					`/people/${(await answer(api.POST("/api/people", { body: person }))).id}`,
				);
			onClose();
		});
	}
	return (
		<Window
			title={id ? details.name : "Add somebody"}
			open
			onClose={onClose}
			wide
		>
			<form onSubmit={keep} className="grid gap-3">
				<PersonFields
					person={person}
					wrong={(field) => act.refusal?.of(field)}
					onChange={setPerson}
				/>
				<Refused of={act.refusal} />
				<Button kind="go" type="submit" disabled={act.busy}>
					Keep
				</Button>
			</form>
		</Window>
	);
}
