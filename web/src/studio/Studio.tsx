import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect } from "react";
import { Navigate, Route, Routes } from "react-router";
import { answer, api, keepToken } from "../api/client";
import type { SessionDto } from "../api/schema";
import { Alert } from "../ui/Alert";
import { Tips } from "../ui/Tip";
import { UndoProvider } from "../ui/Undo";
import { Bar } from "./Bar";
import { CoverStrip } from "./cover/CoverStrip";
import { useCover } from "./cover/useCover";
import { Keys } from "./Keys";
import { useLive } from "./live";
import { SignIn } from "./SignIn";
import { Today } from "./today/Today";
import { useArrival } from "./useArrival";

const record = () => import("./record/RecordPage");
const RecordPage = lazy(record);
const Turns = lazy(() => import("./Turns"));
const SetUp = lazy(() => import("./first/SetUp"));
const Begin = lazy(() => import("./first/Begin"));
const ProposalPage = lazy(() => import("./proposal/ProposalPage"));
const Bank = lazy(() => import("./money/Bank"));
const Invoices = lazy(() => import("./money/Invoices"));
const MoneyPage = lazy(() => import("./money/MoneyPage"));
const AccountsPage = lazy(() => import("./money/AccountsPage"));
const AccountantPage = lazy(() => import("./money/AccountantPage"));
const ReportsPage = lazy(() => import("./reports/ReportsPage"));
const BillPage = lazy(() => import("./bill/BillPage"));
const ReadSent = lazy(() => import("./proposal/ReadSent"));
const AsClient = lazy(() => import("./record/AsClient"));
const Register = lazy(() => import("./register/Register"));
const Templates = lazy(() => import("./templates/Templates"));
const StudioPage = lazy(() => import("./settings/StudioPage"));
const People = lazy(() => import("./people/People"));
const Person = lazy(() => import("./people/Person"));
const AllPraise = lazy(() => import("./people/AllPraise"));
const ListPage = lazy(() => import("./lists/ListPage"));
const RunSheetPage = lazy(() => import("./runsheet/RunSheetPage"));
const Signed = lazy(() => import("./people/Signed"));
const LabelPage = lazy(() => import("./LabelPage"));
const SeasonPage = lazy(() => import("./season/SeasonPage"));
const CameInPage = lazy(() => import("./today/CameInPage"));
const WeekPage = lazy(() => import("./week/WeekPage"));
const Tray = lazy(() => import("./Tray"));
const Kit = lazy(() => import("./kit/Kit"));
const Import = lazy(() => import("./import/Import"));
const PostOffice = lazy(() => import("./PostOffice"));

/** The owner's side: signed in, or asked to. */
export function Studio() {
	const session = useQuery({
		queryKey: ["session"],
		queryFn: async () => {
			const session = await answer(api.GET("/api/session"));
			keepToken(session.token);
			return session;
		},
		staleTime: Number.POSITIVE_INFINITY,
	});
	if (session.error)
		return (
			<main className="p-6">
				<Alert>{session.error.message}</Alert>
			</main>
		);
	if (!session.data) return null;
	if (session.data.empty)
		return (
			<Suspense fallback={null}>
				<SetUp empty={session.data.empty} />
			</Suspense>
		);
	return session.data.owner ? (
		<SignedIn session={session.data} />
	) : (
		<SignIn studio={session.data.studio} />
	);
}

function SignedIn({ session }: { session: SessionDto }) {
	useLive();
	const page = useArrival();
	const cover = useCover();
	// every page leads to a record: it is fetched once the first page stands
	useEffect(() => {
		void record();
	}, []);
	return (
		<Tips delayDuration={300}>
			<UndoProvider>
				<Bar session={session} />
				<Keys />
				{cover.on && <CoverStrip onShow={cover.turn} />}
				<div
					key={`${cover.on}`}
					ref={page}
					tabIndex={-1}
					className="outline-none"
				>
					<Suspense fallback={<main className="p-6">One moment</main>}>
						<Routes>
							<Route path="/" element={<Navigate to="/today" replace />} />
							<Route path="/begin" element={<Begin />} />
							<Route path="/today" element={<Today />} />
							<Route path="/turns" element={<Turns />} />
							<Route path="/register" element={<Register />} />
							<Route path="/season" element={<SeasonPage />} />
							<Route path="/came-in" element={<CameInPage />} />
							<Route path="/week" element={<WeekPage />} />
							<Route path="/templates/*" element={<Templates />} />
							<Route path="/studio" element={<StudioPage />} />
							<Route path="/reports" element={<ReportsPage />} />
							<Route path="/money" element={<MoneyPage />} />
							<Route path="/money/invoices" element={<Invoices />} />
							<Route path="/money/accounts" element={<AccountsPage />} />
							<Route path="/money/accountant" element={<AccountantPage />} />
							<Route path="/money/bank" element={<Bank />} />
							<Route path="/people" element={<People />} />
							<Route path="/people/papers" element={<Signed />} />
							<Route path="/people/praise" element={<AllPraise />} />
							<Route path="/people/:id" element={<Person />} />
							<Route path="/labels/:label" element={<LabelPage />} />
							<Route path="/tray" element={<Tray />} />
							<Route path="/import/:id?" element={<Import />} />
							<Route path="/projects/:id" element={<RecordPage />} />
							<Route path="/projects/:id/proposal" element={<ProposalPage />} />
							<Route
								path="/projects/:id/proposal/:version"
								element={<ReadSent />}
							/>
							<Route path="/projects/:id/bill" element={<BillPage />} />
							<Route
								path="/projects/:id/run-sheet"
								element={<RunSheetPage />}
							/>
							<Route path="/projects/:id/lists/:list" element={<ListPage />} />
							<Route path="/lists/:list" element={<ListPage />} />
							<Route path="/projects/:id/as-client" element={<AsClient />} />
							{session.hasStandIns && (
								<Route
									path="/post-office/:letter?"
									element={<PostOffice clock={session.clockCanBeSet} />}
								/>
							)}
							{session.clockCanBeSet && <Route path="/kit" element={<Kit />} />}
							<Route
								path="*"
								element={
									<main className="p-6">
										<h1>There is no such page</h1>
									</main>
								}
							/>
						</Routes>
					</Suspense>
				</div>
			</UndoProvider>
		</Tips>
	);
}
