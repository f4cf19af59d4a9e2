using System.Collections.Immutable;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;

namespace Gesamt.Core.Tests.Routines;

/// <summary>One project lived through: what its client and owner do at random days, a ticker that stands still and is killed now and then, and a carrier that remembers what it took.</summary>
public sealed class Decade
{
    private static readonly string[] Zones = ["Europe/Dublin", "America/New_York", "Australia/Lord_Howe"];
    private static readonly KindRules Kind = KindRules.Default with { MainDate = "opening day" };

    private readonly Random random;
    private readonly ImmutableArray<Routine> stock;
    private readonly SortedDictionary<(Instant At, int Order), Func<Happening[]>> events = [];
    private readonly HashSet<StepRef> outbox = [];
    private readonly Dictionary<StepRef, int> carried = [];
    private readonly Dictionary<StepRef, Instant> answers = [];
    private Case project;
    private Instant now;
    private long facts;

    public Decade(int seed, ImmutableArray<Routine> stock, Instant decade)
    {
        (random, this.stock) = (new Random(seed), stock);
        var calendar = World.Calendar with { Zone = DateTimeZoneProviders.Tzdb[Zones[seed % Zones.Length]] };
        now = decade + Duration.FromMinutes(random.Next(10 * 365 * 24 * 60));
        project = new(new ProjectId(seed), Kind, new History([]), [], [], calendar)
        {
            Traits = new(seed % 3 == 0 ? "a fair" : "the web", Traits.None.Details),
        };
        Plot();
    }

    public Case Project => project;
    public IReadOnlyDictionary<StepRef, int> Carried => carried;
    public int Ticks { get; private set; }

    /// <summary>Lives on until nothing more is due and nothing more happens.</summary>
    public void Live()
    {
        while (Next() is { } next)
        {
            now = next > now ? next : now;
            while (events.Count > 0 && events.First() is var first && first.Key.At <= now)
            {
                events.Remove(first.Key);
                Record(first.Value());
            }
            // a house without power: what is due is found late
            if (random.Next(40) == 0)
                now += Duration.FromHours(random.Next(1, 200));
            Tick();
        }
    }

    private Instant? Next() =>
        Plan.Of(project)
            .Where(step => step.State == StepState.Planned)
            .Select(step => step.Due)
            .Concat(answers.Values.Select(at => (Instant?)at))
            .Append(events.Count > 0 ? events.First().Key.At : null)
            .Append(outbox.Count > 0 ? now : null)
            .Min();

    private void Tick()
    {
        Ticks++;
        Confirm();
        for (var due = DueSteps.Of(project, now); due.Length > 0; due = DueSteps.Of(project, now))
        {
            if (due.FirstOrDefault(one => !outbox.Contains(one.Step.Ref)) is not { } step)
                return;
            Act(step);
            if (random.Next(60) == 0)
                return; // killed between two steps
        }
        foreach (var (reference, _) in answers.Where(answer => answer.Value <= now).ToList())
        {
            answers.Remove(reference);
            if (Plan.Of(project).FirstOrDefault(step => step.Ref == reference) is not { State: StepState.Held } held)
                continue;
            if (random.Next(5) == 0)
                Record(new Happening.StepSkipped(reference));
            else if (held.Step.Action is StepAction.EndAsQuiet)
                Record(new Happening.Ended(EndReason.GoneQuiet));
            else
                Claim(held);
        }
    }

    private void Act(DueStep due)
    {
        if (due.Act == DueAct.Skip)
            Record(new Happening.StepSkipped(due.Step.Ref));
        else if (due.Act == DueAct.Hold)
        {
            Record(new Happening.StepHeld(due.Step.Ref, null));
            // the owner looks within days, or never
            if (random.Next(6) > 0)
                answers[due.Step.Ref] = now + Duration.FromHours(random.Next(1, 120));
        }
        else
            Claim(due.Step);
    }

    /// <summary>Claimed under a key that exists once; killed before, during or after the hand-over it is found at the next tick.</summary>
    private void Claim(PlannedStep step)
    {
        if (!step.Step.Action.LeavesTheHouse)
        {
            Record(new Happening.StepDone(step.Ref, null));
            return;
        }
        Assert.True(outbox.Add(step.Ref), $"{step.Ref} was claimed twice.");
        if (random.Next(50) > 0)
            Confirm();
    }

    private void Confirm()
    {
        foreach (var reference in outbox.ToList())
        {
            // rechecked at hand-over
            if (
                Plan.Of(project).FirstOrDefault(step => step.Ref == reference) is { } planned
                && DueSteps.MayLeave(planned, now)
                && !carried.ContainsKey(reference)
            )
            {
                carried[reference] = carried.GetValueOrDefault(reference) + 1;
                if (random.Next(50) == 0)
                    return; // killed before it was confirmed: the carrier is asked next time
            }
            outbox.Remove(reference);
            if (carried.ContainsKey(reference))
                Record(new Happening.LetterSent(new LetterId(1), true), new Happening.StepDone(reference, null));
        }
    }

    private void Record(params Happening[] what)
    {
        Append(what);
        Begin();
        var stopped = DueSteps.Stopped(project, now).ToList();
        Append([.. stopped.Select(step => new Happening.StepStopped(step.Ref, step.Why!.Value))]);
        if (what.Any(one => one is Happening.PaymentVoided))
            Append([.. Resuming.Of(project, now).Ahead.Select(step => new Happening.StepReplanned(step.Ref))]);
    }

    private void Begin()
    {
        if (project.End is not null)
            return;
        foreach (var routine in stock.Where(routine => project.Runs.All(run => run.Routine.Key != routine.Key)))
        {
            if (!Causes.Begins(project, routine.Begins))
                continue;
            if (Beginning.Of(project, routine, now) is not Beginning.Now begins)
                continue;
            var run = new Run(new RunId(project.Runs.Length + 1), begins.Routine);
            project = project with { Runs = project.Runs.Add(run) };
            Append([new Happening.RunBegan(run.Id)]);
        }
    }

    private void Append(Happening[] what) =>
        project = project with
        {
            History = new History(
                project.History.Facts.AddRange(
                    what.Select(one => new Fact(
                        new FactId(++facts),
                        project.Id,
                        now,
                        now,
                        one is Happening.InquiryCame or Happening.LetterReceived ? Actor.Client : Actor.Owner,
                        one
                    ))
                )
            ),
        };

    /// <summary>What happens to the project: most are followed up and booked, some go quiet, rest, move their date or book late.</summary>
    private void Plot()
    {
        var at = now;
        var date = project.Calendar.DateOf(at).PlusDays(random.Next(30, 400));
        void Then(int mostDays, params Happening[] what) =>
            events.Add((at += Duration.FromMinutes(random.Next(mostDays * 1440) + 1), events.Count), () => what);
        Then(1, new Happening.InquiryCame(null), new Happening.DateSet(Kind.MainDate, date, null));
        if (random.Next(5) > 0)
            Then(3, new Happening.LetterSent(new LetterId(9), false));
        if (random.Next(6) == 0)
            return; // goes quiet
        Then(12, new Happening.LetterReceived(new LetterId(1), random.Next(4) == 0), new Happening.MarkedFit());
        if (random.Next(8) == 0)
            Then(3, new Happening.RestBegan(random.Next(2) == 0 ? null : project.Calendar.DateOf(at).PlusDays(20)));
        Then(10, new Happening.ProposalSent(new VersionId(1), date));
        if (random.Next(3) > 0)
            Then(6, new Happening.ProposalOpened(new VersionId(1)));
        if (random.Next(6) == 0)
            Then(5, new Happening.ProposalSent(new VersionId(2), date));
        if (random.Next(5) == 0)
        {
            Then(60, new Happening.Ended(EndReason.Lost));
            return;
        }
        Then(
            14,
            new Happening.ProposalAccepted(new VersionId(1), World.Eur(3000), World.Eur(1200), World.Eur(3000), []),
            new Happening.ContractSent(World.Contract)
        );
        Then(12, World.Signed(Signer.Client), World.Signed(Signer.Owner));
        Then(
            1,
            new Happening.InvoiceIssued(new InvoiceId(1), World.Eur(1200), project.Calendar.DateOf(at).PlusDays(7))
        );
        Then(20, new Happening.PaymentReceived(new PaymentId(1), new InvoiceId(1), World.Eur(1200)));
        if (random.Next(10) == 0)
            Then(
                9,
                new Happening.PaymentVoided(new PaymentId(1)),
                new Happening.PaymentReceived(new PaymentId(3), new InvoiceId(1), World.Eur(1200))
            );
        if (random.Next(3) == 0)
            Then(20, new Happening.DateSet(Kind.MainDate, date.PlusDays(random.Next(-20, 120)), null));
        Then(
            60,
            new Happening.InvoiceIssued(new InvoiceId(2), World.Eur(1800), project.Calendar.DateOf(at).PlusDays(14))
        );
        Then(30, new Happening.HandedOver());
        Then(25, new Happening.Approved());
        Then(40, new Happening.PaymentReceived(new PaymentId(2), new InvoiceId(2), World.Eur(1800)));
    }
}
