import { useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { LeaveDto, ShownTestimonialDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { TextArea } from "../ui/TextArea";
import { TextField } from "../ui/TextField";

type Say = (write: () => Promise<unknown>) => Promise<void>;

/** What the studio may quote and show: words to approve as they are right, and two leaves, each taken back by a press. */
export default function TestimonialPart({
	shown,
	owner,
	link,
	reload,
}: {
	shown: ShownTestimonialDto;
	owner: string;
	link: string;
	reload: () => Promise<void>;
}) {
	const [refusal, setRefusal] = useState<Refusal>();
	const say: Say = async (write) => {
		setRefusal(undefined);
		try {
			await write();
			await reload();
		} catch (error) {
			setRefusal(error as Refusal);
		}
	};
	return (
		<section
			id="testimonial"
			aria-label="Quoting and showing"
			className="max-w-2xl pb-8"
		>
			<h2 className="rule pb-1.5">What {owner} may quote and show</h2>
			{shown.open && (
				<Approve
					key={shown.hash}
					shown={shown}
					link={link}
					refusal={refusal}
					say={say}
				/>
			)}
			{!shown.open && shown.quoted && (
				<figure className="py-3">
					<blockquote className="break-words whitespace-pre-line">
						“{shown.quoted.words}”
					</blockquote>
					<figcaption className="under">
						{shown.quoted.name}. You approved these words on {shown.approved}.
					</figcaption>
				</figure>
			)}
			{shown.leaves.map((leave) => (
				<Leave key={leave.to} leave={leave} link={link} say={say} />
			))}
			<Refused of={refusal} />
		</section>
	);
}

function Approve({
	shown,
	link,
	refusal,
	say,
}: {
	shown: ShownTestimonialDto;
	link: string;
	refusal: Refusal | undefined;
	say: Say;
}) {
	const [words, setWords] = useState(shown.words.words);
	const [name, setName] = useState(shown.words.name);
	return (
		<div className="grid gap-3 py-3">
			<TextArea
				label="The words"
				hint="Change them until they are right. Nothing else is ever quoted."
				rows={4}
				value={words}
				wrong={refusal?.of("words")}
				onChange={(e) => setWords(e.target.value)}
			/>
			<TextField
				label="With the name"
				value={name}
				wrong={refusal?.of("name")}
				onChange={(e) => setName(e.target.value)}
			/>
			<div className="flex flex-wrap gap-2">
				<Button
					kind="brand"
					onClick={() =>
						say(() =>
							answer(
								api.POST("/p/{link}/api/testimonial/approve", {
									params: { path: { link } },
									body: { words, name, hash: shown.hash },
								}),
							),
						)
					}
				>
					These words are right
				</Button>
				<Button
					onClick={() =>
						say(() =>
							answer(
								api.POST("/p/{link}/api/testimonial/decline", {
									params: { path: { link } },
								}),
							),
						)
					}
				>
					I would rather not
				</Button>
			</div>
		</div>
	);
}

const asks = {
	Quote: "May these words be quoted?",
	Show: "May the work be shown?",
};

function Leave({
	leave,
	link,
	say,
}: {
	leave: LeaveDto;
	link: string;
	say: Say;
}) {
	const respond = (given: boolean) =>
		say(() =>
			answer(
				api.POST("/p/{link}/api/leave", {
					params: { path: { link } },
					body: { to: leave.to, given, wording: leave.wording },
				}),
			),
		);
	return (
		<section aria-label={asks[leave.to]} className="border-t border-hair py-3">
			<h3>{asks[leave.to]}</h3>
			<p className="pb-2 break-words">“{leave.wording}”</p>
			{leave.state === "Asked" ? (
				<div className="flex flex-wrap gap-2">
					<Button kind="brand" onClick={() => respond(true)}>
						Yes
					</Button>
					<Button onClick={() => respond(false)}>No</Button>
				</div>
			) : (
				<div className="flex flex-wrap items-center gap-3">
					<b className="font-[650]">
						{leave.state === "Given" ? "Yes" : "No"}, {leave.said}
					</b>
					{leave.state === "Given" && (
						<Button
							onClick={() =>
								say(() =>
									answer(
										api.POST("/p/{link}/api/leave/revoke", {
											params: { path: { link } },
											body: { to: leave.to },
										}),
									),
								)
							}
						>
							Take it back
						</Button>
					)}
				</div>
			)}
		</section>
	);
}
