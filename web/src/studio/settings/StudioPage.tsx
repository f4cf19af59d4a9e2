import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, api } from "../../api/client";
import type { SaveStudioDto, StudioDto } from "../../api/schema";
import { Shown } from "../../ui/Shown";
import { KeepAll, useKeepAll } from "../KeepAll";
import { ApiKeys } from "./ApiKeys";
import { Archive } from "./Archive";
import { Backups } from "./Backups";
import { Billing } from "./Billing";
import { Calendars } from "./Calendars";
import { Erased } from "./Erased";
import { Feed } from "./Feed";
import { Habits } from "./Habits";
import { Hooks } from "./Hooks";
import { HoursSection } from "./HoursSection";
import { Look } from "./Look";
import { Mail } from "./Mail";
import { MeetingKinds } from "./MeetingKinds";
import { MoneySection } from "./MoneySection";
import { Names } from "./Names";
import { SignedIn } from "./SignedIn";
import { Style } from "./Style";

/** What each part of the studio's settings is given. */
export type Part = {
	said: SaveStudioDto;
	studio: StudioDto;
	wrong: (field: string) => string | undefined;
	/** Changes one block of it. */
	set: <K extends keyof SaveStudioDto>(
		block: K,
		part: Partial<SaveStudioDto[K]>,
	) => void;
	/** The button that keeps all of it. */
	keep: React.ReactNode;
};

/** The studio's own settings. */
export default function StudioPage() {
	const studio = useQuery({
		queryKey: ["studio"],
		queryFn: () => answer(api.GET("/api/studio")),
	});
	useEffect(() => {
		document.title = "The studio, Gesamt";
	}, []);
	return (
		<main className="px-5 pb-8">
			<div className="pt-4 pb-3">
				<h1>The studio</h1>
				<p className="text-soft">
					Who you are, how you work, and what your clients see.
				</p>
			</div>
			<Shown query={studio}>
				{(data) => <Page key={data.said.edition} studio={data} />}
			</Shown>
		</main>
	);
}

function Page({ studio }: { studio: StudioDto }) {
	const [said, setSaid] = useState(studio.said);
	const all = useKeepAll(() => answer(api.PUT("/api/studio", { body: said })));
	const part: Part = {
		said,
		studio,
		wrong: (field) => all.refusal?.of(field),
		set: (block, change) =>
			setSaid({
				...said,
				[block]: { ...(said[block] as object), ...change },
			}),
		keep: (
			<KeepAll
				all={all}
				words="Keep the studio"
				unchanged={said === studio.said}
			/>
		),
	};
	return (
		<div className="grid gap-4">
			<h2 className="sr-only">What the studio says of itself</h2>
			<Names {...part} />
			<Look {...part} />
			<MoneySection {...part} />
			<Billing {...part} />
			<Habits {...part} />
			<Style {...part} />
			<HoursSection {...part} />
			<MeetingKinds />
			<Calendars />
			<Mail />
			<SignedIn />
			<Backups />
			<Archive />
			<Erased />
			<Hooks />
			<ApiKeys />
			<Feed address={studio.feed} />
		</div>
	);
}
