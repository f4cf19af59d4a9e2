import { useState } from "react";
import { answer, api } from "../../api/client";
import type { KindDto, LetterTextRowDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { useAct } from "../useAct";

/** Gives one kind words of its own in the place of a letter that all share. */
export function OwnWords({
	letter,
	kinds,
	onDone,
}: {
	letter: LetterTextRowDto;
	kinds: readonly KindDto[];
	onDone: () => void;
}) {
	const [kind, setKind] = useState(kinds[0]!.id);
	const act = useAct();
	return (
		<div className="flex flex-wrap items-end gap-2">
			<Select
				label="Words of its own for"
				value={kind}
				onChange={(e) => setKind(Number(e.target.value))}
			>
				{kinds.map((one) => (
					<option key={one.id} value={one.id}>
						{one.name}
					</option>
				))}
			</Select>
			<Button
				disabled={act.busy}
				onClick={async () => {
					const made = await act.run(() =>
						answer(
							api.POST("/api/letter-texts", {
								body: {
									name: letter.name,
									number: null,
									subject: letter.subject,
									body: letter.body,
									edition: 0,
									files: [...letter.files],
									kind,
									key: letter.key,
								},
							}),
						),
					);
					if (made) onDone();
				}}
			>
				Write them
			</Button>
			<Refused of={act.refusal} />
		</div>
	);
}
