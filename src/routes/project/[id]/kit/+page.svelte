<p>kit</p>
