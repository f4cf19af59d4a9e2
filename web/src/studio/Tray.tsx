import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { answer, api } from "../api/client";
import type { SlipDto, UnfiledDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Kbd } from "../ui/Kbd";
import { Refused } from "../ui/Refused";
import { Shown } from "../ui/Shown";
import { useUndo } from "../ui/Undo";
import { beginInquiry } from "./beginInquiry";
import { FileWith } from "./FileWith";
import { isTyping } from "./Keys";
import { useAct } from "./useAct";

/** What has no project yet: slips and letters, filed one by one. */
export default function Tray() {
	const tray = useQuery({
		queryKey: ["over", "tray"],
		queryFn: () => answer(api.GET("/api/tray")),
	});
	useEffect(() => {
		document.title = "Tray, Gesamt";
	}, []);
	return (
		<main className="max-w-4xl px-5 pb-8">
			<div className="pt-4 pb-3">
				<h1>Tray</h1>
				<p className="text-soft">
					Slips and letters that belong to no project yet. Nothing here is on
					any client's page.
				</p>
			</div>
			<Shown query={tray}>
				{(data) => (
					<div className="grid gap-7">
						<section aria-label="Letters">
							<h2 className="rule pb-1.5">
								Letters{" "}
								<span className="font-normal text-soft">
									{data.letters.length}
								</span>
							</h2>
							{data.letters.map((letter) => (
								<Letter key={letter.id} letter={letter} />
							))}
							{data.letters.length === 0 && (
								<p className="py-3 text-soft">
									Every letter that came in has its project.
								</p>
							)}
						</section>
						<section aria-label="Slips">
							<h2 className="rule pb-1.5">
								Slips{" "}
								<span className="font-normal text-soft">
									{data.slips.length}
								</span>
							</h2>
							{data.slips.map((slip) => (
								<Slip key={slip.id} slip={slip} />
							))}
							{data.slips.length === 0 && (
								<p className="py-3 text-soft">
									A slip that names no project lies here until you file it.
								</p>
							)}
						</section>
						{data.more > 0 && <p className="under">and {data.more} more</p>}
					</div>
				)}
			</Shown>
		</main>
	);
}

function Letter({ letter }: { letter: UnfiledDto }) {
	const act = useAct();
	const offer = useUndo();
	const file = (project: number) =>
		act.run(() =>
			answer(
				api.POST("/api/letters/{id}/file", {
					params: { path: { id: letter.id } },
					body: { project },
				}),
			),
		);
	const aside = (to: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/letters/{id}/aside", {
					params: { path: { id: letter.id } },
					body: { aside: to },
				}),
			),
		);
	return (
		<article
			aria-label={`${letter.from}, ${letter.subject}`}
			// biome-ignore lint/a11y/noNoninteractiveTabindex: it is walked to with j and k
			tabIndex={0}
			data-walk
			className="border-b border-hair py-3 focus-visible:bg-sheet focus-visible:outline-offset-0"
			onKeyDown={(event) => {
				const chosen = letter.candidates[Number(event.key) - 1];
				if (chosen && !isTyping(event.target)) file(chosen.project);
			}}
		>
			<p>
				<b className="font-[650]">{letter.from}</b>, {letter.subject}{" "}
				<span className="under">
					{letter.mail}, {letter.when}
				</span>
			</p>
			<p className="text-soft">{letter.text}</p>
			<div className="flex flex-wrap items-end gap-2 pt-2">
				{letter.candidates.map((one, i) => (
					<Button
						key={one.project}
						disabled={act.busy}
						onClick={() => file(one.project)}
					>
						File with {one.title}
						{i < 9 && <Kbd>{i + 1}</Kbd>}
					</Button>
				))}
				<Button onClick={() => beginInquiry(letter.id)}>
					Make it an inquiry
				</Button>
				<Button
					disabled={act.busy}
					onClick={async () => {
						if (await aside(true))
							offer({ words: "Set aside", undo: () => aside(false) });
					}}
				>
					Set it aside
				</Button>
				<FileWith onChoose={file} />
			</div>
			<Refused of={act.refusal} />
		</article>
	);
}

function Slip({ slip }: { slip: SlipDto }) {
	const act = useAct();
	const offer = useUndo();
	const gone = (to: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/slips/{id}/gone", {
					params: { path: { id: slip.id } },
					body: { gone: to },
				}),
			),
		);
	return (
		<article
			aria-label={slip.text}
			className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-hair py-2"
		>
			<span className="min-w-0 flex-1">
				{slip.text} <span className="under">{slip.when}</span>
			</span>
			<FileWith
				onChoose={(project) =>
					act.run(() =>
						answer(
							api.POST("/api/slips/{id}/file", {
								params: { path: { id: slip.id } },
								body: { project },
							}),
						),
					)
				}
			/>
			<Button
				onClick={async () => {
					if (await gone(true))
						offer({ words: `Done: ${slip.text}`, undo: () => gone(false) });
				}}
			>
				Done with it
			</Button>
			<Refused of={act.refusal} />
		</article>
	);
}
