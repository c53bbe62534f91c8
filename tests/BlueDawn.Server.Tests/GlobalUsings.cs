global using System.Net;
global using System.Text.Json;
global using Xunit;
