import type { KindDto } from "../../api/schema";
import { DateField } from "../../ui/DateField";
import { Select } from "../../ui/Select";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";

import { Known } from "./Known";
import type { Said } from "./said";

/** Who it is, how they are reached, and what they want. */
export function Fields({
	said,
	kind,
	kinds,
	wrong,
	onChange,
}: {
	said: Said;
	kind: string;
	kinds: readonly KindDto[];
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<Said>) => void;
}) {
	return (
		<>
			<div className="grid gap-3 md:grid-cols-2">
				<TextField
					label="Name"
					autoFocus
					value={said.name}
					wrong={wrong("name")}
					onChange={(e) => onChange({ name: e.target.value, person: "" })}
				/>
				<Select
					label="Kind of work"
					value={kind}
					wrong={wrong("kind")}
					onChange={(e) => onChange({ kind: e.target.value })}
				>
					{kinds.map((one) => (
						<option key={one.id} value={one.id}>
							{one.name}
						</option>
					))}
				</Select>
			</div>
			<Known said={said} onChoose={(person) => onChange({ person })} />
			{!said.person && (
				<div className="grid gap-3 md:grid-cols-3">
					<TextField
						label="Mail"
						value={said.mail}
						wrong={wrong("mail")}
						onChange={(e) => onChange({ mail: e.target.value })}
					/>
					<TextField
						label="Phone"
						value={said.phone}
						wrong={wrong("phone")}
						onChange={(e) => onChange({ phone: e.target.value })}
					/>
					<TextField
						label="Link to a profile"
						value={said.profile}
						wrong={wrong("profile")}
						onChange={(e) => onChange({ profile: e.target.value })}
					/>
				</div>
			)}
			<TextArea
				label="What they said"
				rows={3}
				value={said.words}
				wrong={wrong("words")}
				onChange={(e) => onChange({ words: e.target.value })}
			/>
			<div className="grid gap-3 md:grid-cols-4">
				<TextField
					label="Organisation"
					value={said.organisation}
					wrong={wrong("organisation")}
					onChange={(e) => onChange({ organisation: e.target.value })}
				/>
				<TextField
					label="How they came"
					value={said.source}
					wrong={wrong("source")}
					onChange={(e) => onChange({ source: e.target.value })}
				/>
				<TextField
					label="Campaign"
					value={said.campaign}
					wrong={wrong("campaign")}
					onChange={(e) => onChange({ campaign: e.target.value })}
				/>
				<DateField
					label="The date that matters"
					value={said.date}
					onChange={(day) => onChange({ date: day })}
				/>
			</div>
		</>
	);
}
