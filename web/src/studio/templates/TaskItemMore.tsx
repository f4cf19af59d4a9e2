import type { ListItemDto, ListItemMoreDto } from "../../api/schema";
import { Fold } from "../../ui/Fold";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { WeightSelect } from "../WeightSelect";

const nothing: ListItemMoreDto = {
	estimate: "",
	importance: null,
	effort: null,
	description: "",
	finished: "",
	steps: [],
	isClients: false,
};

/** What else a task of a list brings along, folded away while it brings nothing. */
export function TaskItemMore({
	item,
	number,
	wrong,
	onChange,
}: {
	item: ListItemDto;
	number: number;
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<ListItemDto>) => void;
}) {
	const more = item.more ?? nothing;
	const set = (part: Partial<ListItemMoreDto>) =>
		onChange({ more: { ...more, ...part } });
	return (
		<Fold
			begin={item.more != null}
			className="md:col-span-full"
			line={
				<span className="under">
					What else there is to it
					<span className="sr-only">, task {number}</span>
				</span>
			}
		>
			<div className="grid gap-2 pb-2 pl-4 md:grid-cols-3">
				<TextField
					label="Estimate"
					placeholder="3 h, 45 min"
					value={more.estimate}
					wrong={wrong("more.estimate")}
					onChange={(e) => set({ estimate: e.target.value })}
				/>
				<WeightSelect
					label="Importance"
					words={["low", "middling", "high"]}
					value={more.importance}
					wrong={wrong("more.importance")}
					onChange={(importance) => set({ importance })}
				/>
				<WeightSelect
					label="Effort"
					words={["little", "some", "much"]}
					empty="by the estimate"
					value={more.effort}
					wrong={wrong("more.effort")}
					onChange={(effort) => set({ effort })}
				/>
				<TextArea
					label="What it is about"
					rows={3}
					value={more.description}
					wrong={wrong("more.description")}
					onChange={(e) => set({ description: e.target.value })}
				/>
				<TextArea
					label="Its parts, one a line"
					rows={3}
					value={more.steps.join("\n")}
					wrong={wrong("more.steps")}
					onChange={(e) => set({ steps: e.target.value.split("\n") })}
					onBlur={() =>
						set({
							steps: more.steps.map((step) => step.trim()).filter(Boolean),
						})
					}
				/>
				<div className="grid content-start gap-2">
					<TextField
						label="Finished when"
						value={more.finished}
						wrong={wrong("more.finished")}
						onChange={(e) => set({ finished: e.target.value })}
					/>
					<Tick
						label="The client does it"
						checked={more.isClients}
						onChange={(isClients) => set({ isClients })}
					/>
				</div>
			</div>
		</Fold>
	);
}
