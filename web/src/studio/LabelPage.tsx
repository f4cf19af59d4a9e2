import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useParams } from "react-router";
import { answer, api } from "../api/client";
import { Shown } from "../ui/Shown";

/** Everything that carries one label. */
export default function LabelPage() {
	const label = useParams().label!;
	const found = useQuery({
		queryKey: ["over", "label", label],
		queryFn: () =>
			answer(api.GET("/api/labels/{label}", { params: { path: { label } } })),
	});
	useEffect(() => {
		document.title = `${label}, Gesamt`;
	}, [label]);
	return (
		<main className="max-w-3xl px-5 pb-8">
			<h1 className="pt-4 pb-3">Label: {label}</h1>
			<Shown query={found}>
				{(data) => (
					<>
						{data.map((one) => (
							<Link
								key={`${one.sort}${one.id}`}
								data-walk
								to={
									one.sort === "person"
										? `/people/${one.id}`
										: `/projects/${one.project}`
								}
								className="flex gap-3 border-b border-hair py-1.5"
							>
								<span className="w-16 shrink-0 text-small text-soft">
									{one.sort}
								</span>
								<span>
									<b className="font-[650]">{one.title}</b>{" "}
									<span className="under">{one.under}</span>
								</span>
							</Link>
						))}
						{data.length === 0 && (
							<p className="text-soft">Nothing carries this label any more.</p>
						)}
					</>
				)}
			</Shown>
		</main>
	);
}
