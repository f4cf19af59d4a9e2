import type {
	RoutineDraftDto,
	RoutinePageDto,
	StepDto,
} from "../../api/schema";
import { Button } from "../../ui/Button";

import { StepEditor } from "./StepEditor";
import type { useChecked } from "./useChecked";

/** A step read as a sentence, with its date and what is wrong with it; pressed, it is edited. */
export function RoutineStep({
	at,
	step,
	page,
	draft,
	checked,
	open,
	wrong,
	onOpen,
	onChange,
	onMove,
	onTakeOut,
}: {
	at: number;
	step: StepDto;
	page: RoutinePageDto;
	draft: RoutineDraftDto;
	checked: ReturnType<typeof useChecked>;
	open: boolean;
	wrong: (field: string) => string | undefined;
	onOpen: () => void;
	onChange: (part: Partial<StepDto>) => void;
	onMove: (by: 1 | -1) => void;
	onTakeOut: () => void;
}) {
	return (
		<li className="border-b border-hair py-2">
			<div className="flex gap-3">
				<Button kind="line" data-walk aria-expanded={open} onClick={onOpen}>
					{checked?.steps[at]?.sentence ?? "…"}
				</Button>
				{checked?.steps[at]?.date && (
					<span className="num ml-auto text-[13.4px] whitespace-nowrap text-(--date)">
						{checked.steps[at].date}
					</span>
				)}
			</div>
			{checked?.mistakes
				.filter((one) => one.field.startsWith(`steps[${at}].`))
				.map((one) => (
					<p key={one.field} className="wrong">
						{one.words}
					</p>
				))}
			{open && (
				<StepEditor
					step={step}
					choices={page.choices}
					variants={draft.variants}
					wrong={(field) => wrong(`steps[${at}].${field}`) || undefined}
					onChange={onChange}
					onTakeOut={onTakeOut}
					onUp={at > 0 ? () => onMove(-1) : undefined}
					onDown={at < draft.steps.length - 1 ? () => onMove(1) : undefined}
				/>
			)}
		</li>
	);
}
