import { lazy, type Ref, Suspense } from "react";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { AskForm } from "./AskForms";
import { HandOver } from "./HandOver";
import { KeptNow } from "./KeptNow";
import type { Begins } from "./nextAct";
import { OfferMeeting } from "./OfferMeeting";
import { PutBrief } from "./PutBrief";
import { PutTestimonial } from "./PutTestimonial";
import { PutUp } from "./PutUp";
import { SendRateSheet } from "./RateSheet";
import { Sheet } from "./Sheet";
import type { useKeepFiles } from "./useKeepFiles";

// each comes when it is first opened
const LetterEditor = lazy(() => import("./LetterEditor"));
const Reader = lazy(() => import("./Reader"));
const SendContract = lazy(() => import("./SendContract"));

/** What is begun in the sheet's place, by the word its address says. */
const begun = {
	review: PutUp,
	handover: HandOver,
	brief: PutBrief,
	testimonial: PutTestimonial,
	form: AskForm,
	contract: SendContract,
	rates: SendRateSheet,
	meeting: OfferMeeting,
};

/** The sheet; in its place what is read or written. */
export function Side({
	place,
	record,
	begins,
	open,
	writing,
	sheet,
	onShow,
	onClose,
	files,
}: {
	place: Ref<HTMLElement>;
	record: RecordDto;
	begins: Begins;
	/** An entry of the line, “Letter.12”. */
	open: string | null;
	/** What is written: one of those begun here, a letter, or an answer to one, “answer.12”. */
	writing: string | null;
	/** On a phone the sheet lies over the line; the name of the part that was asked for. */
	sheet: string | null;
	onShow: (search: Record<string, string>) => void;
	onClose: () => void;
	files: ReturnType<typeof useKeepFiles>;
}) {
	return (
		<aside
			ref={place}
			tabIndex={-1}
			data-sends={open || writing ? "" : undefined}
			aria-label={open || writing ? "Reader" : "Sheet"}
			className={
				open || writing || sheet
					? "outline-none max-lg:fixed max-lg:inset-0 max-lg:z-20 max-lg:overflow-auto max-lg:bg-plaster max-lg:p-4"
					: "outline-none max-lg:hidden"
			}
		>
			{sheet && !open && !writing && (
				<div className="flex pb-3 lg:hidden">
					<b className="font-head font-[650]">{record.head.title}</b>
					<Button
						kind="word"
						size="small"
						className="ml-auto"
						onClick={onClose}
					>
						Close
					</Button>
				</div>
			)}
			<KeptNow record={record} files={files} />
			<Suspense fallback={<p className="p-4 text-soft">One moment</p>}>
				{writing ? (
					<Writing record={record} what={writing} onClose={onClose} />
				) : open ? (
					<Reader
						record={record}
						begins={begins}
						name={open}
						onWrite={(write) => onShow({ write })}
						onClose={onClose}
					/>
				) : (
					<Sheet
						record={record}
						asked={sheet}
						onKeep={files.keep}
						onWrite={(write) => onShow({ write })}
						onOpen={(what) => onShow({ open: what })}
					/>
				)}
			</Suspense>
		</aside>
	);
}

/** The letter that something written begins with. */
const lettersBegun: Record<string, string | undefined> = {
	summary: "meeting-summary",
	progress: "progress",
};

function Writing({
	record,
	what,
	onClose,
}: {
	record: RecordDto;
	what: string;
	onClose: () => void;
}) {
	const Begun = Object.hasOwn(begun, what)
		? begun[what as keyof typeof begun]
		: undefined;
	if (Begun) return <Begun record={record} onClose={onClose} />;
	return (
		<LetterEditor
			record={record}
			begin={lettersBegun[what]}
			answers={
				what.startsWith("answer.")
					? Number(what.slice("answer.".length))
					: undefined
			}
			onClose={onClose}
		/>
	);
}
