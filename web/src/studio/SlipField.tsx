import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useEffect, useRef, useState } from "react";
import { useLocation } from "react-router";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import { LineField } from "../ui/LineField";
import { useUndo } from "../ui/Undo";
import { useKeys } from "./Keys";
import { changedAll } from "./live";

/** The field in the bar: a short text in plain words, read as it is typed, filed by what it says. */
export function SlipField() {
	const [text, setText] = useState("");
	const [asked, setAsked] = useState("");
	const [refusal, setRefusal] = useState<string>();
	const field = useRef<HTMLInputElement>(null);
	const here = useLocation().pathname.match(/^\/projects\/(\d+)/)?.[1];
	const offer = useUndo();
	const queries = useQueryClient();
	useKeys({ "/": () => field.current?.focus() });
	useEffect(() => {
		const timer = setTimeout(() => setAsked(text.trim()), 150);
		return () => clearTimeout(timer);
	}, [text]);
	const reading = useQuery({
		queryKey: ["slip", asked, here],
		queryFn: () =>
			answer(
				api.GET("/api/slips/reading", {
					params: {
						query: { text: asked, project: here ? Number(here) : undefined },
					},
				}),
			),
		enabled: asked.length > 0,
		placeholderData: (before) => before,
	});
	const fetchAgain = () => changedAll(queries);
	async function keep(event: FormEvent) {
		event.preventDefault();
		if (!text.trim()) return;
		try {
			const kept = await answer(
				api.POST("/api/slips", {
					body: {
						text,
						project: here ? Number(here) : null,
					},
				}),
			);
			setText("");
			setRefusal(undefined);
			await fetchAgain();
			offer({
				words: kept.words,
				undo: async () => {
					await answer(
						api.POST("/api/slips/{id}/undo", {
							params: { path: { id: kept.id } },
						}),
					);
					await fetchAgain();
				},
			});
		} catch (error) {
			setRefusal((error as Refusal).message);
		}
	}
	return (
		<form onSubmit={keep} className="relative min-w-0 flex-1">
			<LineField
				ref={field}
				look="bar"
				label="Write a slip"
				aria-describedby="slip-reading"
				placeholder="A slip: order paint for harbour fri"
				value={text}
				onChange={(e) => setText(e.target.value)}
				onKeyDown={(e) => e.key === "Escape" && setText("")}
			/>
			<p
				id="slip-reading"
				role="status"
				className="absolute top-full right-0 left-0 z-10 empty:hidden"
			>
				{text.trim() && (refusal || reading.data) && (
					<span className="block border-[1.5px] border-ink bg-sheet px-2.5 py-1.5 text-[14px] text-ink">
						{refusal ?? (
							<>
								<b className="font-[650]">“{reading.data?.text}”</b> becomes{" "}
								{reading.data?.becomes}
							</>
						)}
					</span>
				)}
			</p>
		</form>
	);
}
