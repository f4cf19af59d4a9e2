import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Shown } from "../../ui/Shown";
import { Window } from "../../ui/Window";
import { AsRead } from "./AsRead";

/** The draft as the client will see it on a phone: 390 pixels wide, to look at only. */
export function OnPhone({
	project,
	client,
	edition,
	brand,
}: {
	project: number;
	client: string;
	edition: number;
	brand: string;
}) {
	const [open, setOpen] = useState(false);
	return (
		<>
			<Button onClick={() => setOpen(true)}>On a phone</Button>
			<Window
				title="As it reads on a phone"
				open={open}
				onClose={() => setOpen(false)}
			>
				<Phone
					project={project}
					client={client}
					edition={edition}
					brand={brand}
				/>
			</Window>
		</>
	);
}

function Phone({
	project,
	client,
	edition,
	brand,
}: {
	project: number;
	client: string;
	edition: number;
	brand: string;
}) {
	const seen = useQuery({
		queryKey: ["draft", project, "as-client", edition],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/proposal/as-client", {
					params: { path: { id: project } },
				}),
			),
		retry: false,
	});
	return (
		<Shown query={seen}>
			{(proposal) => (
				<AsRead proposal={proposal} client={client} brand={brand} narrow />
			)}
		</Shown>
	);
}
