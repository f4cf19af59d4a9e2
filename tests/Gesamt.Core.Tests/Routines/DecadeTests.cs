using System.Collections.Immutable;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;

namespace Gesamt.Core.Tests.Routines;

/// <summary>Ten years of 500 projects, jumping from one due instant to the next, through clock changes, late bookings, moved dates, standstills and kills.</summary>
public class DecadeTests
{
    // ./gesamt bench plays many more
    private static readonly int Projects = int.TryParse(
        Environment.GetEnvironmentVariable("GESAMT_DECADE"),
        out var more
    )
        ? more
        : 500;

    // begun within the ten years, and lived to their end
    private static readonly Lazy<Decade[]> Lived = new(() =>
    {
        var stock = Stock();
        var decades = Enumerable
            .Range(0, Projects)
            .Select(seed => new Decade(seed, stock, World.At("2027-01-04 09:00")))
            .ToArray();
        foreach (var decade in decades)
            decade.Live();
        return decades;
    });

    [Fact]
    public void Every_step_acts_once_or_has_a_named_reason_why_not()
    {
        Assert.All(
            Lived.Value,
            decade =>
                Assert.All(
                    Plan.Of(decade.Project),
                    step =>
                        Assert.True(
                            step.State switch
                            {
                                StepState.Done or StepState.Skipped => step.Since is not null,
                                StepState.Stopped => step.Why is not null,
                                // waits for a cause that never came, or for the owner who never looked
                                StepState.Parked => step.WaitsFor is not null
                                    || step.Step.When.Cause is Cause.PreviousStep or Cause.NamedDate
                                    || Causes.Of(decade.Project, step.Step.When.Cause).Count == 0,
                                StepState.Held => true,
                                _ => false,
                            },
                            $"project {decade.Project.Id.Value}, {step.Ref}: {step.State}"
                        )
                )
        );
    }

    [Fact]
    public void No_letter_leaves_the_house_twice_and_none_that_was_done_stayed_in_it()
    {
        foreach (var decade in Lived.Value)
        {
            Assert.All(decade.Carried.Values, times => Assert.Equal(1, times));
            var done = Plan.Of(decade.Project)
                .Where(step => step.State == StepState.Done && step.Step.Action.LeavesTheHouse)
                .Select(step => step.Ref)
                .ToHashSet();
            Assert.Equal(done, decade.Carried.Keys.ToHashSet());
        }
    }

    [Fact]
    public void Nothing_acts_before_its_time_or_after_what_stops_it()
    {
        foreach (var decade in Lived.Value)
        foreach (
            var step in Plan.Of(decade.Project)
                .Where(step => step is { State: StepState.Done, Due: not null, LateStart: false })
        )
            // a date that moved later, or a booking whose payment was taken back, has moved the plan of what was done already
            Assert.True(
                step.Since >= step.Due
                    || step.Step.When.Cause == Cause.NamedDate
                    || step.Step.When.Cause == Cause.Booked && decade.Project.History.Any<Happening.PaymentVoided>(),
                $"project {decade.Project.Id.Value}, {step.Ref} acted {step.Since}, due {step.Due}"
            );
    }

    [Fact] // so that the others prove something
    public void Much_happened_of_every_sort()
    {
        var steps = Lived.Value.SelectMany(decade => Plan.Of(decade.Project)).ToList();
        Assert.All(
            new[] { StepState.Done, StepState.Skipped, StepState.Stopped, StepState.Held, StepState.Parked },
            state =>
                Assert.True(
                    steps.Count(step => step.State == state) > 20,
                    $"{state}: {steps.Count(step => step.State == state)}"
                )
        );
        Assert.True(Lived.Value.Sum(decade => decade.Ticks) > 10_000);
        Assert.True(steps.Select(step => step.Why).Distinct().Count() > 5);
    }

    /// <summary>The routines a new studio begins with, of murals.</summary>
    private static ImmutableArray<Routine> Stock()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Gesamt.slnx")))
            folder = folder.Parent;
        return
        [
            .. new[]
            {
                "inquiry",
                "proposal",
                "contract",
                "payment",
                "start-mural",
                "orders",
                "delivery",
                "after-mural",
            }.Select(name =>
                RoutineText.Read(
                    File.ReadAllText(
                        new[] { Path.Combine("demo", "routines"), Path.Combine("sets", "usual", "routines") }
                            .Select(where => Path.Combine(folder!.FullName, where, $"{name}.txt"))
                            .First(File.Exists)
                    )
                )
            ),
        ];
    }
}
