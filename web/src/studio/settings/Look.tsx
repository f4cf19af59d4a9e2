import { answer, api, upload } from "../../api/client";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { Section } from "../templates/Section";
import { useAct } from "../useAct";
import { Sample } from "./Sample";
import type { Part } from "./StudioPage";

/** The brand: a colour, a logo, and what pages and papers look like with them. */
export function Look({ said, studio, wrong, set, keep }: Part) {
	const act = useAct();
	const { hasLogo } = studio.said.look;
	return (
		<Section title="Look" under="colour and logo of all that clients see">
			<div className="grid gap-5 md:grid-cols-[240px_1fr]">
				<div className="grid content-start gap-3">
					<TextField
						label="Brand colour"
						hint="dark enough for white words"
						value={said.look.brand}
						wrong={wrong("look.brand")}
						onChange={(e) => set("look", { brand: e.target.value })}
					/>
					<div className="flex flex-wrap gap-2">
						<FilePick
							accept="image/*"
							name="A logo"
							onFiles={([file]) => {
								if (file)
									act.run(() =>
										upload(
											`/api/studio/logo?name=${encodeURIComponent(file.name)}`,
											file,
										),
									);
							}}
						>
							{hasLogo ? "Another logo" : "A logo"}
						</FilePick>
						{hasLogo && (
							<Button
								onClick={() =>
									act.run(() => answer(api.DELETE("/api/studio/logo")))
								}
							>
								Take the logo away
							</Button>
						)}
					</div>
					<Refused of={act.refusal} />
				</div>
				<Sample said={said} hasLogo={hasLogo} choices={studio.choices} />
			</div>
			{keep}
		</Section>
	);
}
