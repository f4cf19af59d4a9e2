import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";

const EditPerson = lazy(() =>
	import("./EditPerson").then((module) => ({ default: module.EditPerson })),
);

/** Changes what is kept of somebody, from wherever they are named. */
export function ChangePerson({ id, name }: { id: number; name: string }) {
	const [open, setOpen] = useState(false);
	const person = useQuery({
		queryKey: ["over", "person", id],
		queryFn: () =>
			answer(api.GET("/api/people/{id}", { params: { path: { id } } })),
		enabled: open,
	});
	return (
		<>
			<Button kind="word" size="small" onClick={() => setOpen(true)}>
				change<span className="sr-only">: {name}</span>
			</Button>
			{open && person.data && (
				<Suspense>
					<EditPerson
						id={id}
						details={person.data.details}
						onClose={() => setOpen(false)}
					/>
				</Suspense>
			)}
		</>
	);
}
