import { useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { ClientPageDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { TextArea } from "../ui/TextArea";

const groups: Record<string, string> = {
	Why: "Why",
	What: "What",
	Frame: "Frame",
	Watch: "To keep in mind",
};

/** The brief as it was put to the client: read, approved, or remarked on. */
export default function BriefPart({
	brief,
	owner,
	link,
	reload,
}: {
	brief: NonNullable<ClientPageDto["parts"]["brief"]>;
	/** Who answers. */
	owner: string;
	link: string;
	reload: () => Promise<void>;
}) {
	const [words, setWords] = useState<string>();
	const [refusal, setRefusal] = useState<Refusal>();
	const [sent, setSent] = useState<string>();
	async function say(act: Promise<unknown>, done?: string) {
		try {
			await act;
			setRefusal(undefined);
			setWords(undefined);
			setSent(done);
			await reload();
		} catch (error) {
			setRefusal(error as Refusal);
		}
	}
	return (
		<section id="brief" aria-label="The brief" className="max-w-2xl pb-8">
			<h2 className="rule pb-1.5">The brief</h2>
			{[...new Set(brief.parts.map((part) => part.group))].map((group) => (
				<div key={group} className="border-b border-hair py-3">
					<h3 className="text-soft">{groups[group] ?? group}</h3>
					<dl>
						{brief.parts
							.filter((part) => part.group === group)
							.map((part) => (
								<div key={part.name} className="pt-1.5">
									<dt className="under">{part.name}</dt>
									<dd className="whitespace-pre-line">{part.text}</dd>
								</div>
							))}
					</dl>
				</div>
			))}
			{brief.approved && (
				<p className="pt-3 font-[650]">You approved it on {brief.approved}.</p>
			)}
			{sent && (
				<div role="status" className="mt-3 bg-plaster p-4">
					<p className="font-[650]">{owner} has your words and will answer.</p>
					<p className="pt-1 whitespace-pre-line">“{sent}”</p>
				</div>
			)}
			<Refused of={refusal} />
			{brief.open && words === undefined && (
				<div className="flex flex-wrap gap-2 pt-3">
					<Button
						kind="brand"
						onClick={() =>
							say(
								answer(
									api.POST("/p/{link}/api/brief/approve", {
										params: { path: { link } },
										body: { hash: brief.hash },
									}),
								),
							)
						}
					>
						This is right
					</Button>
					<Button onClick={() => setWords("")}>
						Something should be different
					</Button>
				</div>
			)}
			{brief.open && words !== undefined && (
				<div className="grid gap-2 pt-3">
					<TextArea
						label="What should be different"
						rows={4}
						value={words}
						wrong={refusal?.of("words")}
						onChange={(e) => setWords(e.target.value)}
					/>
					<div className="flex flex-wrap gap-2">
						<Button
							kind="brand"
							onClick={() =>
								say(
									answer(
										api.POST("/p/{link}/api/brief/remark", {
											params: { path: { link } },
											body: { words },
										}),
									),
									words,
								)
							}
						>
							Send this
						</Button>
						<Button onClick={() => setWords(undefined)}>
							Nothing is different
						</Button>
					</div>
				</div>
			)}
		</section>
	);
}
