import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Section } from "../templates/Section";
import type { Part } from "./StudioPage";

/** Who the studio is, and where it is reached. */
export function Names({ said, studio, wrong, set, keep }: Part) {
	const field = (
		key: Exclude<keyof typeof said.names, "address" | "signature">,
		label: string,
		more: { type?: "email" | "tel" | "url"; hint?: string } = {},
	) => (
		<TextField
			label={label}
			{...more}
			value={said.names[key]}
			wrong={wrong(`names.${key}`)}
			onChange={(e) => set("names", { [key]: e.target.value })}
		/>
	);
	return (
		<Section title="Details" under="on letters, papers and pages" open>
			<div className="grid gap-3 md:grid-cols-2">
				{field("name", "Name of the studio")}
				{field("owner", "Your name")}
				{field("mail", "Mail address", { type: "email" })}
				{field("phone", "Phone", { type: "tel" })}
				{field("site", "Your own site", {
					type: "url",
					hint: "https://studio.example",
				})}
				{studio.fixedAddress ? (
					<div>
						<div className="label">Clients reach this program at</div>
						<p className="py-1.5 font-[650] break-all">{studio.fixedAddress}</p>
						<p className="under">set where the program is started</p>
					</div>
				) : (
					field("clientAddress", "Clients reach this program at", {
						type: "url",
						hint: "for the links in letters, such as https://work.studio.example; left empty, only this machine can open them",
					})
				)}
				<TextArea
					label="Postal address"
					rows={2}
					value={said.names.address}
					wrong={wrong("names.address")}
					onChange={(e) => set("names", { address: e.target.value })}
				/>
				<TextArea
					label="Signature"
					rows={2}
					value={said.names.signature}
					wrong={wrong("names.signature")}
					onChange={(e) => set("names", { signature: e.target.value })}
				/>
			</div>
			{keep}
		</Section>
	);
}
