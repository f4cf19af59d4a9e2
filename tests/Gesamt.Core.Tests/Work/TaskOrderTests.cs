using Gesamt.Core.Projects;
using Gesamt.Core.Work;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Work;

public sealed class TaskOrderTests
{
    // Monday
    private static readonly LocalDate Today = Date("2027-01-25");

    private static OpenTask Task(
        long id,
        string? due = null,
        int? importance = null,
        int? effort = null,
        int? minutes = null
    ) => new(new(id), $"task {id}", due is null ? null : Date(due)) { Weight = new(importance, effort, minutes) };

    private static long[] Order(params OpenTask[] tasks) =>
        [.. TaskOrder.Offered(tasks, Today, World.Calendar).Select(task => task.Id.Value)];

    [Fact] // urgent and important, important, urgent, the rest
    public void What_is_urgent_and_important_goes_first() =>
        Assert.Equal(
            [4, 3, 2, 1],
            Order(Task(1, "2027-03-01"), Task(2, "2027-01-25"), Task(3, "2027-03-01", 3), Task(4, "2027-01-25", 3))
        );

    [Theory] // late, or within two business days: Monday, Tuesday and Wednesday, over a weekend the next working days
    [InlineData("2027-01-25", "2027-01-27", true)]
    [InlineData("2027-01-25", "2027-01-28", false)]
    [InlineData("2027-01-25", "2026-12-01", true)]
    [InlineData("2027-01-22", "2027-01-26", true)]
    [InlineData("2027-01-22", "2027-01-27", false)]
    public void Urgent_is_what_is_due_within_two_business_days(string today, string due, bool urgent) =>
        Assert.Equal(
            urgent ? [2, 1] : [1, 2],
            TaskOrder
                .Offered([Task(1, importance: 2), Task(2, due, importance: 1, effort: 3)], Date(today), World.Calendar)
                .Select(task => task.Id.Value)
        );

    [Fact] // effort less importance, then importance, the day, and as they were made
    public void What_brings_much_for_little_goes_before_the_rest_of_its_quadrant() =>
        Assert.Equal(
            [5, 3, 4, 2, 1],
            Order(
                Task(1, importance: 1, effort: 3),
                Task(2, importance: 2, effort: 3),
                Task(3, "2027-03-01", importance: 2, effort: 2),
                Task(4, "2027-03-02", importance: 2, effort: 2),
                Task(5, importance: 2, effort: 1)
            )
        );

    [Theory]
    [InlineData(null, 60, 1)]
    [InlineData(null, 61, 2)]
    [InlineData(null, 240, 2)]
    [InlineData(null, 241, 3)]
    [InlineData(1, 600, 1)]
    [InlineData(null, null, null)]
    public void Effort_goes_by_the_estimate_unless_it_was_said(int? said, int? minutes, int? effort) =>
        Assert.Equal(effort, TaskOrder.Effort(new(null, said, minutes)));

    [Fact]
    public void The_order_is_one_whatever_the_tasks_come_in()
    {
        var gen =
            from importance in Gen.Int[0, 3]
            from effort in Gen.Int[0, 3]
            from days in Gen.Int[-3, 10]
            select (importance, effort, days);
        gen.Array[0, 12]
            .Sample(drawn =>
            {
                var tasks = drawn
                    .Select(
                        (one, i) =>
                            new OpenTask(new(i + 1), "task", one.days > 8 ? null : Today.PlusDays(one.days))
                            {
                                Weight = new(
                                    one.importance == 0 ? null : one.importance,
                                    one.effort == 0 ? null : one.effort,
                                    null
                                ),
                            }
                    )
                    .ToList();
                var order = TaskOrder.Offered(tasks, Today, World.Calendar);
                Assert.Equal(order, TaskOrder.Offered(tasks.AsEnumerable().Reverse(), Today, World.Calendar));
                Assert.Equal(tasks.Count, order.Distinct().Count());
            });
    }

    [Theory] // common practice: 2 of 5 tasks done, one more added
    [InlineData(2, 5, 40)]
    [InlineData(2, 6, 33)]
    [InlineData(1, 8, 13)]
    [InlineData(0, 3, 0)]
    [InlineData(0, 0, null)]
    public void Progress_is_done_of_all_and_no_figure_without_tasks(int done, int all, int? percent) =>
        Assert.Equal(percent, new TaskProgress(done, all).Percent);
}
