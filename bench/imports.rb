# frozen_string_literal: true

require "tempfile"

# Taking a large document in: how long, how much memory, and what others notice of it.
class ImportBench
  def initialize(song)
    @file = Tempfile.create("big-song")
    @file.write(JSON.generate(KindSatchel::Document.dump(song)))
    @file.flush
  end

  # @return [Hash] seconds, and the most memory of the worker
  def import
    runs = Array.new(3) { worker }
    { "median_s" => runs.map(&:first).sort[1].round(2), "most_memory_mb" => runs.map(&:last).max, "bytes" => @file.size }
  end

  # Previews of another song while a server takes the document in.
  # @yieldparam runs [Integer]
  # @yieldreturn [Hash] what was measured
  def previews_meanwhile(server)
    yield 20
    text = File.read(@file.path)
    posting = Thread.new { Net::HTTP.post(URI("http://127.0.0.1:#{server.port}/api/songs/import"), text, "Content-Type" => "application/json") }
    yield(150).merge("imported" => posting.value.code)
  end

  private

  def worker
    folder = Dir.mktmpdir
    env = { **Workers::ROOMY, "SATCHEL_DB" => File.join(folder, "songs.sqlite3"), "RUBY_YJIT_ENABLE" => "1" }
    started = Measure.now
    Open3.popen2(env, *Workers::RUBY, Workers::WORKER) do |input, output, thread|
      input.puts JSON.generate(["import", { "file" => @file.path }])
      memory = 0
      output.each_line do |line|
        memory = [memory, most_memory(thread.pid)].max
        input.puts("go") if line.include?("ready")
        return [Measure.now - started, [memory, most_memory(thread.pid)].max] if line.include?("done")
      end
    end
  ensure
    FileUtils.rm_rf(folder)
  end

  def most_memory(pid) = File.read("/proc/#{pid}/status")[/VmHWM:\s+(\d+)/, 1].to_i / 1024
end
