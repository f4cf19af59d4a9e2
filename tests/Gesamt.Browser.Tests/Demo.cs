namespace Gesamt.Browser.Tests;

/// <summary>One server with the demo, the owner's browser and a client's, for the tests that follow each other.</summary>
public sealed class Demo : IDisposable
{
    public House House { get; } = new();
    public Person Owner { get; }
    public Person Client { get; }

    public Demo()
    {
        Owner = new(House.Address);
        Client = new(House.Address);
        Owner.SignIn();
    }

    public void Dispose()
    {
        Owner.Dispose();
        Client.Dispose();
        House.Dispose();
    }
}
